
/// A value as conditions and arguments have it, and as the plan is made of.
public indirect enum Value: Equatable, Codable {
    case text(String)
    case number(Double)
    case truth(Bool)
    case record([String: Value])
    case list([Value])
    case nothing

    public init(from decoder: Decoder) throws {
        let one = try decoder.singleValueContainer()
        if one.decodeNil() { self = .nothing }
        else if let truth = try? one.decode(Bool.self) { self = .truth(truth) }
        else if let number = try? one.decode(Double.self) { self = .number(number) }
        else if let text = try? one.decode(String.self) { self = .text(text) }
        else if let list = try? one.decode([Value].self) { self = .list(list) }
        else { self = .record(try one.decode([String: Value].self)) }
    }

    public func encode(to encoder: Encoder) throws {
        var one = encoder.singleValueContainer()
        switch self {
        case .text(let text): try one.encode(text)
        case .number(let number): try one.encode(number)
        case .truth(let truth): try one.encode(truth)
        case .record(let record): try one.encode(record)
        case .list(let list): try one.encode(list)
        case .nothing: try one.encodeNil()
        }
    }

    /// The value as text, numbers without an empty fraction.
    public var asText: String {
        switch self {
        case .text(let text): return text
        case .number(let number): return number == number.rounded() && abs(number) < 1e15 ? String(Int(number)) : String(number)
        case .truth(let truth): return truth ? "true" : "false"
        case .record, .list, .nothing: return ""
        }
    }
    var string: String? { if case .text(let text) = self { return text } else { return nil } }
    var number: Double? { if case .number(let number) = self { return number } else { return nil } }
    var truth: Bool? { if case .truth(let truth) = self { return truth } else { return nil } }
    var record: Args? { if case .record(let record) = self { return record } else { return nil } }
    var list: [Value] { if case .list(let list) = self { return list } else { return [] } }
}

public typealias Args = [String: Value]

/// A part of the plan: places, legs, ways in and facts as the design says them, moves as stack operations.
public struct Part {
    let values: Args
    init(_ values: Args = [:]) { self.values = values }
    /// Reads a plan, which is JSON.
    init(json lines: [String]) {
        let read = try? JSONDecoder().decode(Value.self, from: Data(lines.joined().utf8))
        self.init(read?.record ?? [:])
    }
    subscript(name: String) -> Value? { return values[name] }
    func has(_ name: String) -> Bool { return values[name] != nil }
    func text(_ name: String) -> String? { return values[name]?.string }
    func flag(_ name: String) -> Bool { return values[name] == .truth(true) }
    func part(_ name: String) -> Part? { return values[name]?.record.map { Part($0) } }
    func parts(_ name: String) -> [Part] { return (values[name]?.list ?? []).map { Part($0.record ?? [:]) } }
    func texts(_ name: String) -> [String] { return (values[name]?.list ?? []).compactMap { $0.string } }
}

public indirect enum Event {
    case leg(String, item: Value? = nil, fields: Args? = nil)
    case tab(String)
    case pick(String)
    case lead
    case back
    case launch
    case close(String)
    case enter(String, args: Args = [:], cold: Bool = false)
    case fact(String, Value)
    case width(String)

    /// The word by which depart legs name it.
    var departing: String? {
        switch self {
        case .back: return "back"
        case .lead: return "lead"
        case .tab: return "tab"
        case .pick: return "pick"
        case .close: return "close"
        case .enter(_, _, let cold): return cold ? nil : "link"
        case .leg, .launch, .fact, .width: return nil
        }
    }
}

/// What makes one screen shown another than the next of its kind.
public final class Made {}
public struct Shown {
    let at: String
    let args: Args
    var spent: [String] = []
    var made = Made()
}
public struct Stack {
    let at: String
    var items: [Node]
}
/// A tab set, or a drawer where `drawer` says so.
public struct Lanes {
    let at: String
    let drawer: Bool
    var active: String
    var lanes: [String: Node]
    var visited: [String]
    var open = false
}
public indirect enum Node {
    case shown(Shown)
    case stack(Stack)
    case lanes(Lanes)

    var at: String {
        switch self {
        case .shown(let shown): return shown.at
        case .stack(let stack): return stack.at
        case .lanes(let lanes): return lanes.at
        }
    }
    var isShown: Bool { if case .shown = self { return true } else { return false } }
    var asStack: Stack? { if case .stack(let stack) = self { return stack } else { return nil } }
    var asLanes: Lanes? { if case .lanes(let lanes) = self { return lanes } else { return nil } }
    var isDrawer: Bool { return asLanes?.drawer == true }
    var isOpen: Bool { return asLanes.map { $0.drawer && $0.open } ?? false }
    var closed: Node {
        guard case .lanes(var lanes) = self else { return self }
        lanes.open = false
        return .lanes(lanes)
    }
    var child: Node? {
        switch self {
        case .shown: return nil
        case .stack(let stack): return stack.items.last
        case .lanes(let lanes): return lanes.lanes[lanes.active]
        }
    }
    func withChild(_ inner: Node) -> Node {
        switch self {
        case .shown: return inner
        case .stack(var stack):
            stack.items[stack.items.count - 1] = inner
            return .stack(stack)
        case .lanes(var lanes):
            lanes.lanes[lanes.active] = inner
            return .lanes(lanes)
        }
    }
    var path: [Node] {
        var out = [self]
        while let next = out[out.count - 1].child { out.append(next) }
        return out
    }
    var shownIn: Shown { if case .shown(let shown)? = path.last { return shown } else { return Shown(at: at, args: [:]) } }
    /// The node with another screen at the end of its path.
    func showing(_ shown: Shown) -> Node { return replaceOn(path, path.count - 1, .shown(shown)) }
}

func replaceOn(_ path: [Node], _ depth: Int, _ node: Node) -> Node {
    return path.prefix(depth).reversed().reduce(node) { inner, outer in outer.withChild(inner) }
}

public struct Layer {
    let at: String
    var content: Node
}
public struct Waiting {
    let entrance: String
    let args: Args
}
public struct Held {
    let event: Event
    let depth: Int
}
/// Where the app is. Branch 0 is the base, branch n the content of layer n.
public struct State {
    var base: Node
    var layers: [Layer]
    var facts: Args
    var width: String
    var waiting: Waiting? = nil
    var held: Held? = nil

    var top: Int { return layers.count }
    func branch(_ n: Int) -> Node { return n == 0 ? base : layers[n - 1].content }
    func path(_ n: Int) -> [Node] { return branch(n).path }
    func current(_ n: Int) -> Shown { return branch(n).shownIn }
    func nearestStack(_ n: Int) -> Int? { return path(n).lastIndex { $0.asStack != nil } }
    func with(_ change: (inout State) -> Void) -> State {
        var copy = self
        change(&copy)
        return copy
    }
    func withBranch(_ n: Int, _ node: Node) -> State { return with { if n == 0 { $0.base = node } else { $0.layers[n - 1].content = node } } }
    func withLayers(_ count: Int) -> State { return with { $0.layers = Array(layers.prefix(count)) } }
    func update(_ n: Int, _ depth: Int, _ node: Node) -> State { return withBranch(n, replaceOn(path(n), depth, node)) }
    func withItems(_ n: Int, _ depth: Int, _ items: [Node]) -> State { return update(n, depth, .stack(Stack(at: path(n)[depth].at, items: items))) }
}

/// What a move comes to before it is made.
enum Change {
    case moved(State)
    case refused(String)
    case ignored(String)
    case left(String?)
    static let nothingToDo = Change.ignored("nothing-to-do")
    static let noControl = Change.ignored("no-such-control")
}

/// `outcome` is moved, ignored, refused or left; unless it is moved, the state is the one given. `url` is what opens outside of the app.
public struct Outcome {
    public let outcome: String
    public let state: State
    public var why: String? = nil
    public var url: String? = nil
}

/// A state in which a container stands on the path of a branch.
struct Focus {
    var state: State
    let branch: Int
    let depth: Int
    var node: Node { return state.path(branch)[depth] }
    func put(_ node: Node) -> Focus { return Focus(state: state.update(branch, depth, node), branch: branch, depth: depth) }
}

/// Moves through a design: pure functions from a state and an event to a state. `rows` gives the app's own rows of a type.
public final class Engine {
    private let plan: Part
    private let rows: (String) -> [Args]?
    private let order: [String]

    public init(_ plan: Part, rows: @escaping (String) -> [Args]? = { _ in nil }) {
        self.plan = plan
        self.rows = rows
        self.order = plan.texts("order")
    }

    private func screen(_ id: String) -> Part { return plan.part("screens")?.part(id) ?? Part() }
    private func container(_ id: String) -> Part { return plan.part("containers")?.part(id) ?? Part() }
    private func leg(_ id: String) -> Part { return plan.part("legs")?.part(id) ?? Part() }
    private func rowsOf(_ type: String) -> [Args] { return rows(type) ?? (plan.part("types")?.part(type)?.parts("rows") ?? []).map { $0.values } }
    private func legsFrom(_ place: String, _ on: String) -> [String] { return order.filter { leg($0).text("from") == place && leg($0).text("on") == on } }

    /// The state at launch, with facts as they were stored.
    public func launch(stored: Args = [:]) -> State {
        var first = State(base: make(plan["launch"]), layers: [], facts: factsAnew(nil), width: "narrow")
        for (id, value) in stored {
            if let fact = plan.part("facts")?.part(id), fact.flag("persists"), isOne(fact, value) { first.facts[id] = value }
        }
        return arriving(nil, first) ?? first
    }

    /// Legs on `after` that are in reach and can fire, with their milliseconds.
    public func due(_ state: State) -> [(leg: String, ms: Double)] {
        return order.filter { leg($0).text("on") == "after" }.compactMap { id in
            let fires = inReach(state).contains { n in
                let screen = state.current(n)
                return isSource(state, n, leg(id).text("from") ?? "") && canFire(id, screen, valuesOn(state, screen))
            }
            guard fires, case .number(let ms)? = leg(id)["ms"] else { return nil }
            return (id, ms)
        }
    }

    private func isOne(_ fact: Part, _ value: Value) -> Bool {
        if case .truth = value { return !fact.has("values") }
        return value.string.map { fact.texts("values").contains($0) } ?? false
    }

    public func step(_ state: State, _ event: Event) -> Outcome {
        switch attempt(state, event) {
        case .left(let url): return Outcome(outcome: "left", state: state, url: url)
        case .ignored(let why): return Outcome(outcome: "ignored", state: state, why: why)
        case .refused(let why): return Outcome(outcome: "refused", state: state, why: why)
        case .moved(let next):
            guard let settled = arriving(state, next) else { return Outcome(outcome: "refused", state: state, why: "redirect-loop") }
            return Outcome(outcome: "moved", state: settled.with { if let held = $0.held, settled.top <= held.depth { $0.held = nil } })
        }
    }

    /// The state in one line.
    public func line(_ state: State, openMarks: Bool = true) -> String {
        func of(_ node: Node) -> String {
            switch node {
            case .shown(let shown): return shown.at
            case .stack(let stack): return stack.at + "[" + stack.items.map(of).joined(separator: ",") + "]"
            case .lanes(let lanes):
                let members = container(lanes.at).texts("members")
                let ids = members.filter { lanes.lanes[$0] != nil } + lanes.lanes.keys.filter { !members.contains($0) }.sorted()
                let inside = ids.map { ($0 == lanes.active ? "*" : "") + (lanes.lanes[$0].map(of) ?? "") }.joined(separator: ",")
                return lanes.at + "{" + inside + "}" + (openMarks && node.isOpen ? "!" : "")
            }
        }
        return ([of(state.base)] + state.layers.map { $0.at + "(" + of($0.content) + ")" }).joined(separator: " + ")
    }

    // MARK: Making places

    private func make(_ template: Value?, _ args: Args = [:]) -> Node {
        if let id = template?.string { return .shown(Shown(at: id, args: ownArguments(id, args))) }
        let data = Part(template?.record ?? [:])
        if let stack = data.text("stack") { return .stack(Stack(at: stack, items: (data["items"]?.list ?? []).map { make($0, args) })) }
        let active = data.text("active") ?? ""
        let lanes = [active: make(data["shows"], args)]
        return .lanes(Lanes(at: data.text("lanes") ?? "", drawer: data.text("kind") == "drawer", active: active, lanes: lanes, visited: [active]))
    }

    private func makeLane(_ id: String) -> Node { return make(plan.part("lanes")?[id] ?? .text(id)) }

    /// The arguments that a screen declares, defaults filled in.
    private func ownArguments(_ id: String, _ args: Args) -> Args {
        var own: Args = [:]
        for param in screen(id).parts("params") {
            if let name = param.text("name"), let value = args[name] ?? param["default"] { own[name] = value }
        }
        return own
    }

    private func rebuilt(_ state: State, _ route: Part, _ args: Args) -> State {
        guard let modal = route.text("over") else { return state.with { $0.base = make(route["base"], args); $0.layers = [] } }
        return state.with { $0.base = make(plan["launch"]); $0.layers = [Layer(at: modal, content: make(route["shows"], args))] }
    }

    // MARK: Lanes and Back

    private func isPinned(_ drawer: String, _ width: String) -> Bool { return container(drawer).texts("pinnedAt").contains(width) }

    private func switchTo(_ node: Lanes, _ id: String, _ lane: Node) -> Lanes {
        var next = node
        next.lanes[id] = lane
        if node.active != id && container(node.at)["keeps"] == .truth(false) { next.lanes[node.active] = nil }
        next.active = id
        next.visited = node.visited.filter { $0 != id } + [id]
        next.open = false
        return next
    }

    private func select(_ node: Lanes, _ id: String, fresh: Bool = false) -> Lanes {
        return switchTo(node, id, (fresh ? nil : node.lanes[id]) ?? makeLane(id))
    }

    private func activate(_ state: State, _ id: String) -> Focus? {
        for n in stride(from: state.top, through: 0, by: -1) {
            guard let found = bringUp(state.branch(n), id, []) else { continue }
            let depth = found.path.firstIndex { $0.at == id && !$0.isShown } ?? 0
            return Focus(state: state.withLayers(n).withBranch(n, found), branch: n, depth: depth)
        }
        return nil
    }

    private func bringUp(_ node: Node, _ id: String, _ around: [String]) -> Node? {
        if node.isShown || around.contains(node.at) { return nil }
        if node.at == id { return node }
        let within = around + [node.at]
        if let stack = node.asStack {
            for i in stack.items.indices.reversed() {
                guard let found = bringUp(stack.items[i], id, within) else { continue }
                return .stack(Stack(at: stack.at, items: Array(stack.items.prefix(i)) + [found]))
            }
            return nil
        }
        guard let lanes = node.asLanes else { return nil }
        for lane in [lanes.active] + container(lanes.at).texts("members") + lanes.lanes.keys.sorted() {
            let made = container(lane).texts("holds").contains(id) ? makeLane(lane) : nil
            guard let content = lanes.lanes[lane] ?? made, let found = bringUp(content, id, within) else { continue }
            return .lanes(switchTo(lanes, lane, found))
        }
        return nil
    }

    private func closes(_ id: String, _ way: String) -> Bool { return container(id).texts("closeOn").contains(way) }

    private func goBack(_ state: State, _ n: Int) -> Change {
        let nodes = state.path(n)
        if let open = nodes.lastIndex(where: { $0.isOpen }) {
            return closes(nodes[open].at, "back") ? .moved(state.update(n, open, nodes[open].closed)) : .nothingToDo
        }
        for depth in nodes.indices.reversed() {
            if let next = backIn(nodes[depth]) { return .moved(state.update(n, depth, next)) }
        }
        if n == 0 { return .left(nil) }
        return closes(state.layers[n - 1].at, "back") ? .moved(state.withLayers(n - 1)) : .nothingToDo
    }

    private func backIn(_ node: Node) -> Node? {
        if let stack = node.asStack { return stack.items.count > 1 ? .stack(Stack(at: stack.at, items: Array(stack.items.dropLast()))) : nil }
        guard let lanes = node.asLanes else { return nil }
        let start = container(lanes.at).text("start") ?? ""
        switch container(lanes.at).text("onBack") {
        case "start"?: return lanes.active == start ? nil : .lanes(select(lanes, start))
        case "previous"?:
            let visited = lanes.visited.filter { $0 != lanes.active }
            guard let previous = visited.last else { return nil }
            var next = select(lanes, previous)
            next.visited = visited
            return .lanes(next)
        default: return nil
        }
    }

    // MARK: Stack operations

    /// Runs the operations of a move one after another; `before` is the state that it began in.
    private func run(_ before: State, _ start: State, _ n: Int, _ operations: [Part], _ args: Args) -> Change {
        var state = start
        var on: Focus? = nil
        var quiet = false
        var changed = false
        func settled(_ next: State, _ still: Bool) -> Change { return still && line(next) == line(before) ? .nothingToDo : .moved(next) }
        for (i, op) in operations.enumerated() {
            quiet = quiet || op.flag("quiet")
            switch op.text("op") ?? "" {
            case "refuse": return .refused(op.text("why") ?? "")
            case "tidy": return tidied(state, n, op.text("away") == "one", Array(operations.dropFirst(i + 1)), args)
            case "stack":
                let branch = op.text("of") == "beneath" && n > 0 ? n - 1 : n
                let from = branch < n ? state.withLayers(branch) : state
                guard let depth = from.nearestStack(branch) else {
                    return op.has("otherwise") && branch == n ? run(state, state, n, op.parts("otherwise"), args) : .refused("no-stack")
                }
                on = Focus(state: from, branch: branch, depth: depth)
                changed = changed || from.top < state.top
            case "bring":
                guard let found = activate(state, op.text("up") ?? "") else {
                    return op.has("otherwise") ? run(state, state, n, op.parts("otherwise"), args) : .refused("not-showing")
                }
                on = found
                changed = true
            case "unless": if state.current(n).at == op.text("shows") { return .nothingToDo }
            case "stay":
                guard let last = on?.node.asStack?.items.last else { break }
                var equal = true
                if case .shown(let shown) = last { equal = shown.args == make(op["make"], args).shownIn.args }
                if last.at == op.text("on") && equal { return settled(on?.state ?? state, true) }
            case "pop":
                let to = op.text("to")
                let byScreen = op.text("by") == "shows"
                let matches: (Node) -> Bool = { (byScreen ? $0.shownIn.at : $0.at) == to }
                let found = op.has("beneath") ? popBeneath(state, n, op.text("beneath") == "outwards", matches) : popTo(on, op.flag("pass"), args, matches)
                if let next = found { return settled(next, op.flag("quiet")) }
            case "drop":
                if let next = withoutTop(state, n) { state = next; changed = true }
            case "push", "fill":
                guard let at = on, let stack = at.node.asStack else { return .refused("no-stack") }
                if isAround(op, Array(at.state.path(at.branch).prefix(at.depth + 1))) { return .refused("inside-itself") }
                let items = op.text("op") == "push" ? stack.items + [make(op["make"], args)] : (op["make"]?.list ?? []).map { make($0, args) }
                on = at.put(.stack(Stack(at: stack.at, items: items)))
                changed = true
            case "replace":
                let nodes = state.path(n)
                if isAround(op, Array(nodes.dropLast())) { return .refused("inside-itself") }
                state = state.update(n, nodes.count - 1, make(op["make"], args))
                changed = true
            case "select":
                guard let at = on, let lanes = at.node.asLanes else { return .refused("not-showing") }
                on = at.put(.lanes(select(lanes, op.text("lane") ?? "", fresh: op.flag("fresh"))))
                changed = true
            case "rebuild": return .moved(rebuilt(state, op.part("route") ?? Part(), args))
            case "open": return openModal(state, n, op, args)
            case "close":
                let named = op.text("modal")
                let layer = named == nil ? n - 1 : state.layers.firstIndex { $0.at == named } ?? -1
                return layer < 0 ? .nothingToDo : .moved(state.withLayers(layer))
            case "menu": return menu(state, n, op)
            case "back": return goBack(state, n)
            case "up": return goUp(state, n)
            default: break
            }
            if let at = on { state = at.state }
        }
        return changed ? settled(state, quiet) : .nothingToDo
    }

    private func tidied(_ state: State, _ n: Int, _ one: Bool, _ operations: [Part], _ args: Args) -> Change {
        let untidied = run(state, state, n, operations, args)
        if case .refused = untidied { return untidied }
        guard let depth = state.nearestStack(n), let stack = state.path(n)[depth].asStack, stack.items.count > 1 else { return untidied }
        let items = one ? Array(stack.items.dropLast()) : Array(stack.items.prefix(1))
        return run(state, state.withItems(n, depth, items), n, operations, args)
    }

    private func popTo(_ on: Focus?, _ pass: Bool, _ args: Args, _ matches: (Node) -> Bool) -> State? {
        guard let at = on, let stack = at.node.asStack, let i = stack.items.lastIndex(where: matches) else { return nil }
        let shown = stack.items[i].shownIn
        let kept = pass ? stack.items[i].showing(Shown(at: shown.at, args: ownArguments(shown.at, args), spent: shown.spent)) : stack.items[i]
        return at.put(.stack(Stack(at: stack.at, items: Array(stack.items.prefix(i)) + [kept]))).state
    }

    private func popBeneath(_ state: State, _ n: Int, _ outwards: Bool, _ matches: (Node) -> Bool) -> State? {
        let nodes = state.path(n)
        for depth in nodes.indices.reversed() {
            guard let stack = nodes[depth].asStack else { continue }
            if let i = stack.items.dropLast().lastIndex(where: matches) { return state.withItems(n, depth, Array(stack.items.prefix(i + 1))) }
            if !outwards { return nil }
        }
        return nil
    }

    private func isAround(_ op: Part, _ around: [Node]) -> Bool {
        let holds = op.texts("holds")
        return around.contains { !$0.isShown && holds.contains($0.at) }
    }

    private func withoutTop(_ state: State, _ n: Int) -> State? {
        guard let depth = state.nearestStack(n), let stack = state.path(n)[depth].asStack, stack.items.count > 1 else { return nil }
        return state.withItems(n, depth, Array(stack.items.dropLast()))
    }

    private func goUp(_ state: State, _ n: Int) -> Change {
        let source = state.current(n)
        return run(state, state, n, n > 0 ? [Part(["op": .text("drop")])] : screen(source.at).parts("up"), source.args)
    }

    private func withDrawersClosed(_ state: State, _ n: Int) -> State {
        return state.path(n).indices.reduce(state) { out, depth in out.path(n)[depth].isOpen ? out.update(n, depth, out.path(n)[depth].closed) : out }
    }

    private func openModal(_ state: State, _ n: Int, _ op: Part, _ args: Args) -> Change {
        let before = withDrawersClosed(state, n)
        let modal = op.text("modal") ?? ""
        if let already = state.layers.firstIndex(where: { $0.at == modal }) {
            return already == state.top - 1 ? .nothingToDo : .moved(before.withLayers(already + 1))
        }
        let rest = op.flag("instead") ? Array(before.layers.dropLast()) : before.layers
        return .moved(before.with { $0.layers = rest + [Layer(at: modal, content: make(op["make"], args))] })
    }

    private func menu(_ state: State, _ n: Int, _ op: Part) -> Change {
        let nodes = state.path(n)
        let named = op.text("drawer")
        let depth = named == nil ? nodes.lastIndex { $0.isDrawer } : nodes.firstIndex { $0.isDrawer && $0.at == named }
        guard let at = depth, var drawer = nodes[at].asLanes, !isPinned(drawer.at, state.width) else { return .nothingToDo }
        let wanted = op.has("open") ? op.flag("open") : !drawer.open
        if wanted == drawer.open { return .nothingToDo }
        drawer.open = wanted
        return .moved(state.update(n, at, .lanes(drawer)))
    }

    // MARK: Expressions

    private func value(_ tree: Value?, _ v: Args) -> Value? {
        let parts = tree?.list ?? []
        func part(_ i: Int) -> Value? { return value(parts[i], v) }
        guard let op = parts.first?.string else { return nil }
        switch op {
        case "value": return parts[1]
        case "name": return v[parts[1].asText]
        case "member":
            let found = part(1)?.record?[parts[2].asText]
            return found == .nothing ? nil : found
        case "has": return .truth(part(1) != nil)
        case "!": return part(1).map { .truth($0 != .truth(true)) }
        case "negative": if case .number(let number)? = part(1) { return .number(-number) } else { return nil }
        case "&&", "||":
            let decides = Value.truth(op == "||")
            let first = part(1)
            if first == decides { return decides }
            let second = part(2)
            if second == decides { return decides }
            return first == nil || second == nil ? nil : .truth(op == "&&")
        case "?:": return part(1).flatMap { $0 == .truth(true) ? part(2) : part(3) }
        default:
            guard let a = part(1), let b = part(2) else { return nil }
            return operate(op, a, b)
        }
    }

    private func operate(_ op: String, _ a: Value, _ b: Value) -> Value {
        if case .number(let x) = a, case .number(let y) = b {
            switch op {
            case "+": return .number(x + y)
            case "<": return .truth(x < y)
            case "<=": return .truth(x <= y)
            case ">": return .truth(x > y)
            case ">=": return .truth(x >= y)
            default: return .truth((x == y) == (op == "=="))
            }
        }
        switch op {
        case "+": return .text(a.asText + b.asText)
        case "<": return .truth(a.asText < b.asText)
        case "<=": return .truth(a.asText <= b.asText)
        case ">": return .truth(a.asText > b.asText)
        case ">=": return .truth(a.asText >= b.asText)
        default: return .truth((a == b) == (op == "=="))
        }
    }

    private func valuesOn(_ state: State, _ shown: Shown, item: Args? = nil, fields: Args? = nil) -> Args {
        var v: Args = ["fact": .record(state.facts), "width": .text(state.width), "param": .record(shown.args)]
        v["item"] = item.map { .record($0) }
        v["field"] = fields.map { .record($0) }
        v["next"] = rowBeside(shown, 1).map { .record($0) }
        v["prev"] = rowBeside(shown, -1).map { .record($0) }
        return v
    }

    private func rowBeside(_ shown: Shown, _ by: Int) -> Args? {
        guard let pages = screen(shown.at).part("pages"), let type = pages.text("over"), let key = plan.part("types")?.part(type)?.text("key") else { return nil }
        var all = rowsOf(type)
        if let order = pages.text("order") {
            all = all.enumerated().sorted { a, b in
                let (x, y) = (a.element[order] ?? .text(""), b.element[order] ?? .text(""))
                return x == y ? a.offset < b.offset : operate("<", x, y) == .truth(true)
            }.map { $0.element }
        }
        let wanted = shown.args[pages.text("by") ?? ""]
        guard let at = all.firstIndex(where: { $0[key] == wanted || .record($0) == wanted }) else { return nil }
        return all.indices.contains(at + by) ? all[at + by] : nil
    }

    // MARK: Legs

    private func inReach(_ state: State) -> [Int] {
        var out = [state.top]
        while let n = out.last, n > 0, container(state.layers[n - 1].at)["blocks"] == .truth(false) { out.append(n - 1) }
        return out
    }

    private func isSource(_ state: State, _ n: Int, _ place: String, drawersClosed: Bool = false) -> Bool {
        let nodes = state.path(n)
        let found = nodes.last { $0.at == place }
        if !drawersClosed && nodes.contains(where: { $0.isOpen }) { return found?.isOpen == true }
        guard let node = found else { return n > 0 && state.layers[n - 1].at == place }
        return !node.isDrawer || isPinned(place, state.width)
    }

    private func canFire(_ id: String, _ screen: Shown, _ v: Args, _ by: String? = nil) -> Bool {
        return isReady(id, screen, v) && !leg(id).texts("earlier").contains { answers($0, by) && isReady($0, screen, v) }
    }

    private func answers(_ id: String, _ by: String?) -> Bool {
        guard let kind = by else { return true }
        return !leg(id).has("by") || leg(id).texts("by").contains(kind)
    }

    private func isReady(_ id: String, _ screen: Shown, _ v: Args) -> Bool {
        let one = leg(id)
        if one.flag("never") || (one.text("on") == "after" && screen.spent.contains(id)) || one.texts("except").contains(screen.at) { return false }
        return ["when", "shown", "enabled"].allSatisfy { !one.has($0) || value(one[$0], v) == .truth(true) }
    }

    private func fire(_ state: State, _ n: Int, _ id: String, _ v: Args) -> Change {
        let one = leg(id)
        let drawer = one.flag("keepsDrawer") ? nil : state.path(n).firstIndex { $0.isOpen && $0.at == one.text("from") }
        var before = state
        if let depth = drawer { before = state.update(n, depth, state.path(n)[depth].closed) }
        if one.text("on") == "after" {
            var shown = before.current(n)
            shown.spent.append(id)
            before = before.withBranch(n, before.branch(n).showing(shown))
        }
        let facts = factsAfter(one, state, v)
        let resumed = one.flag("resumes") ? resume(before, facts ?? state.facts) : nil
        let move = one.parts("move")
        let first = move.first?.text("op")
        if resumed == nil && first == "refuse" { return .refused(move[0].text("why") ?? "") }
        let args = argumentsOf(one, v)
        let handed = resultsOf(one, v)
        guard let after = facts, resumed != nil || (args != nil && handed != nil) else { return .refused("no-value") }
        let sets = after != state.facts
        let change: Change
        if let done = resumed { change = done }
        else if first == "proceed" { change = proceed(before) }
        else if first == "leave" { change = .left(move[0].text("url")) }
        else if first == nil { change = sets ? .moved(before) : .nothingToDo }
        else { change = run(before, before, n, move, args ?? [:]) }
        switch change {
        case .moved(let made):
            let next = resumed == nil && wentBack(before, n, move) ? withHanded(made, handed ?? [:]) : made
            return .moved(sets ? next.with { $0.facts = after } : next)
        case .ignored: return drawer == nil ? change : .moved(before)
        default: return change
        }
    }

    private func argumentsOf(_ leg: Part, _ v: Args) -> Args? {
        var args: Args = [:]
        for passed in leg.parts("pass") {
            if let found = value(passed["value"], v) { args[passed.text("name") ?? ""] = found } else if passed.flag("required") { return nil }
        }
        return args
    }

    /// What a leg hands back; nil where some of it has no value.
    private func resultsOf(_ leg: Part, _ v: Args) -> Args? {
        var out: Args = [:]
        for handed in leg.parts("give") {
            guard let found = value(handed["value"], v) else { return nil }
            out[handed.text("name") ?? ""] = found
        }
        return out
    }

    /// Whether a move that was made went back to something that stood there before.
    private func wentBack(_ before: State, _ n: Int, _ move: [Part]) -> Bool {
        switch move.first?.text("op") {
        case "close", "back": return true
        case "unless":
            if case .moved = run(before, before, n, Array(move.prefix(2)), [:]) { return true }
            return false
        default: return false
        }
    }

    /// The state with what is handed back given to the screen that shows: what it declares of it.
    private func withHanded(_ state: State, _ given: Args) -> State {
        let n = state.top
        let screen = state.current(n)
        let declared = self.screen(screen.at).parts("params").contains { given[$0.text("name") ?? ""] != nil }
        if !declared { return state }
        let args = ownArguments(screen.at, screen.args.merging(given) { _, new in new })
        return state.withBranch(n, state.branch(n).showing(Shown(at: screen.at, args: args, spent: screen.spent, made: screen.made)))
    }

    private func factsAfter(_ leg: Part, _ state: State, _ v: Args) -> Args? {
        var facts = state.facts
        for set in leg.parts("set") {
            guard let id = set.text("fact"), let found = value(set["value"], v) else { return nil }
            if let fact = plan.part("facts")?.part(id), fact.has("values"), !fact.texts("values").contains(found.asText) { return nil }
            facts[id] = found
        }
        return facts
    }

    private func proceed(_ state: State) -> Change {
        guard let held = state.held else { return .nothingToDo }
        let beneath = state.withLayers(held.depth).with { $0.held = nil }
        let change = unasked(beneath, held.event, true)
        if case .ignored = change { return .moved(beneath) }
        return change
    }

    /// The state when no arrive leg can fire any more; nil where they go on without end.
    private func arriving(_ before: State?, _ start: State) -> State? {
        var state = start
        var last = before
        for count in 0...32 {
            if let first = before, let previous = last, state.top < previous.top, state.top <= first.top {
                let (was, now) = (first.current(state.top), state.current(state.top))
                if was.at == now.at && was.made === now.made { return state }
            }
            let screen = state.current(state.top)
            if !isSource(state, state.top, screen.at) { return state }
            let v = valuesOn(state, screen)
            guard let id = legsFrom(screen.at, "arrive").first(where: { canFire($0, screen, v) }) else { return state }
            guard case .moved(let next) = fire(state, state.top, id, v) else { return state }
            if count == 32 { return nil }
            last = state
            state = next
        }
        return nil
    }

    // MARK: Events

    private func attempt(_ state: State, _ event: Event) -> Change {
        let tried = unasked(state, event, false)
        guard let by = event.departing else { return tried }
        switch tried {
        case .left: break
        case .moved(let next): if line(next, openMarks: false) == line(state, openMarks: false) { return tried }
        default: return tried
        }
        let n = controlOf(state, event, false)?.branch ?? state.top
        let places = state.path(n).reversed().map { $0.at } + (n > 0 ? [state.layers[n - 1].at] : [])
        let screen = state.current(n)
        let v = valuesOn(state, screen)
        let legs = places.filter { isSource(state, n, $0, drawersClosed: true) }.flatMap { legsFrom($0, "depart") }
        guard let asked = legs.first(where: { answers($0, by) && canFire($0, screen, v, by) }) else { return tried }
        let instead = fire(state, n, asked, v)
        if !leg(asked).has("move") {
            if case .moved(let next) = instead, case .moved(let there) = tried { return .moved(there.with { $0.facts = next.facts }) }
            return tried
        }
        switch instead {
        case .left: return instead
        case .moved(let next): return next.top <= state.top ? instead : .moved(next.with { $0.held = Held(event: event, depth: state.top) })
        default: return tried
        }
    }

    private func useLeg(_ state: State, _ id: String, _ item: Value?, _ fields: Args?) -> Change {
        let one = leg(id)
        guard let from = one.text("from"), one.text("on") != "arrive", one.text("on") != "depart" else { return .noControl }
        let row = item.flatMap { rowOf(one, $0) }
        if item != nil && row == nil && one.has("rows") { return .noControl }
        for n in inReach(state) {
            let screen = state.current(n)
            let v = valuesOn(state, screen, item: row, fields: fields)
            if isSource(state, n, from) && canFire(id, screen, v) { return fire(state, n, id, v) }
        }
        return .noControl
    }

    private func rowOf(_ leg: Part, _ item: Value) -> Args? {
        if let row = item.record { return row }
        guard let type = leg.text("rows"), let key = plan.part("types")?.part(type)?.text("key") else { return nil }
        let all = rowsOf(type)
        if let found = all.first(where: { $0[key] == item || $0[key]?.asText == item.string }) { return found }
        if case .number(let at) = item, all.indices.contains(Int(at)) { return all[Int(at)] }
        return nil
    }

    private func unasked(_ state: State, _ event: Event, _ held: Bool) -> Change {
        switch event {
        case .leg(let id, let item, let fields): return useLeg(state, id, item, fields)
        case .tab(let to), .pick(let to): return choose(state, controlOf(state, event, held), to)
        case .lead: return pressLead(state)
        case .back: return goBack(state, state.top)
        case .launch: return .moved(relaunched(state))
        case .close(let via): return closeBy(state, via)
        case .enter(let id, let args, let cold): return enter(state, id, args, cold)
        case .fact(let id, let to): return setFact(state, id, to)
        case .width(let to): return setWidth(state, to)
        }
    }

    private func controlOf(_ state: State, _ event: Event, _ held: Bool) -> Focus? {
        let to: String
        let picks: Bool
        switch event {
        case .tab(let id): (to, picks) = (id, false)
        case .pick(let id): (to, picks) = (id, true)
        default: return nil
        }
        for n in inReach(state) {
            let nodes = state.path(n)
            let depth = nodes.lastIndex { node in
                guard let lanes = node.asLanes, lanes.drawer == picks, container(node.at).texts("members").contains(to) else { return false }
                if picks { return held || lanes.open || isPinned(node.at, state.width) }
                return !nodes.contains { $0.isOpen } && !screen(node.shownIn.at).flag("coversTabs")
            }
            if let at = depth { return Focus(state: state, branch: n, depth: at) }
        }
        return nil
    }

    private func choose(_ state: State, _ control: Focus?, _ to: String) -> Change {
        guard let at = control, var lanes = at.node.asLanes else { return .noControl }
        if lanes.active != to { return .moved(at.put(.lanes(select(lanes, to))).state) }
        if lanes.drawer { return lanes.open ? .moved(at.put(at.node.closed).state) : .nothingToDo }
        guard container(lanes.at).text("chosenAgain") == "root", let lane = lanes.lanes[to]?.asStack, lane.items.count > 1 else { return .nothingToDo }
        lanes.lanes[to] = .stack(Stack(at: lane.at, items: Array(lane.items.prefix(1))))
        return .moved(at.put(.lanes(lanes)).state)
    }

    /// What the control at the start of the bar is: back, up, menu, idle or none.
    public func leadOf(_ state: State) -> String {
        let n = state.top
        let nodes = Array(state.path(n).reversed())
        let around = nodes.dropFirst().map { $0.at } + (n > 0 ? [state.layers[n - 1].at] : [])
        let bar = screen(nodes[0].at).part("bar") ?? around.compactMap { container($0).part("bar") }.first
        if let own = bar, !own.flag("show") { return "none" }
        let canPop = (nodes.first { $0.asStack != nil }?.asStack?.items.count ?? 0) > 1
        let up = n == 0 && screen(nodes[0].at).has("up")
        switch bar?.text("lead") ?? "auto" {
        case "auto": return canPop ? "back" : up ? "up" : "none"
        case "back": return canPop ? "back" : "none"
        case "up": return n == 0 ? (up ? "up" : "idle") : canPop ? "back" : "idle"
        case "menu":
            guard let drawer = nodes.first(where: { $0.isDrawer }) else { return "idle" }
            return isPinned(drawer.at, state.width) ? "none" : "menu"
        default: return "none"
        }
    }

    private func pressLead(_ state: State) -> Change {
        let n = state.top
        let lead = leadOf(state)
        let nodes = state.path(n)
        let depth = nodes.lastIndex { $0.isDrawer }
        if nodes.contains(where: { $0.isOpen }) {
            guard lead == "menu", let at = depth, nodes[at].isOpen, container(nodes[at].at)["over"] == .truth(false) else { return .nothingToDo }
            return .moved(state.update(n, at, nodes[at].closed))
        }
        switch lead {
        case "none": return .noControl
        case "up": return goUp(state, n)
        case "back": return withoutTop(state, n).map { .moved($0) } ?? .nothingToDo
        case "menu":
            guard let at = depth, var drawer = nodes[at].asLanes else { return .nothingToDo }
            drawer.open = true
            return .moved(state.update(n, at, .lanes(drawer)))
        default: return .nothingToDo
        }
    }

    private func closeBy(_ state: State, _ via: String) -> Change {
        if via == "back" { return .noControl }
        let n = state.top
        let nodes = state.path(n)
        if let open = nodes.lastIndex(where: { $0.isOpen }) {
            return closes(nodes[open].at, via) ? .moved(state.update(n, open, nodes[open].closed)) : .noControl
        }
        return n > 0 && closes(state.layers[n - 1].at, via) ? .moved(state.withLayers(n - 1)) : .noControl
    }

    // MARK: Coming in

    /// Facts at a launch; after the first, those that persist or come from outside are kept.
    private func factsAnew(_ state: State?) -> Args {
        var facts: Args = [:]
        for (id, value) in plan.part("facts")?.values ?? [:] {
            let fact = Part(value.record ?? [:])
            facts[id] = (fact.flag("persists") || fact.flag("outside") ? state?.facts[id] : nil) ?? fact["initial"]
        }
        return facts
    }

    private func relaunched(_ state: State) -> State {
        return State(base: make(plan["launch"]), layers: [], facts: factsAnew(state), width: state.width)
    }

    /// Where an entrance leads now: whether its condition holds, the route (nil where there is no such screen) and the arguments.
    private func destination(_ state: State, _ id: String, _ given: Args) -> (allowed: Bool, route: Part?, args: Args)? {
        guard let entrance = plan.part("entrances")?.part(id) else { return nil }
        let link = given.mapValues { Value.text($0.asText) }
        let v: Args = ["fact": .record(state.facts), "width": .text(state.width), "link": .record(link)]
        let allowed = !entrance.flag("never") && (!entrance.has("when") || value(entrance["when"], v) == .truth(true))
        var args: Args = [:]
        for passed in entrance.parts("pass") { args[passed.text("name") ?? ""] = value(passed["value"], v) }
        if !entrance.has("pass") {
            for param in entrance.parts("takes") { if let name = param.text("name"), let found = given[name] { args[name] = fromText(found, param.text("type")) } }
        }
        return (allowed, entrance.part("route"), args)
    }

    private func fromText(_ value: Value, _ type: String?) -> Value? {
        guard let text = value.string else { return value }
        switch type {
        case "integer"?: return text.range(of: "^[+-]?[0-9]+$", options: .regularExpression) == nil ? nil : Double(text).map { .number($0) }
        case "number"?: return Double(text.trimmingCharacters(in: .whitespaces)).map { .number($0) }
        case "boolean"?: return text == "true" ? .truth(true) : text == "false" ? .truth(false) : nil
        default: return value
        }
    }

    private func enter(_ state: State, _ id: String, _ given: Args, _ cold: Bool) -> Change {
        let start = cold ? relaunched(state) : state
        guard let entrance = plan.part("entrances")?.part(id), let found = destination(start, id, given) else { return .noControl }
        if !found.allowed {
            guard let otherwise = entrance.part("otherwise") else { return cold ? .moved(start) : .refused("not-allowed") }
            guard let route = otherwise.part("route") else { return .refused("no-place") }
            return .moved(rebuilt(entrance.flag("resume") ? start.with { $0.waiting = Waiting(entrance: id, args: given) } : start, route, [:]))
        }
        guard let route = found.route else { return .refused("no-place") }
        let bare = withDrawersClosed(start.with { $0.layers = [] }, 0)
        guard !cold, entrance.flag("onTop"), let depth = bare.nearestStack(0), let stack = bare.path(0)[depth].asStack else {
            return .moved(rebuilt(start, route, found.args))
        }
        return .moved(bare.withItems(0, depth, stack.items + [make(entrance["make"], found.args)]))
    }

    private func resume(_ state: State, _ facts: Args) -> Change? {
        guard let waiting = state.waiting, let found = destination(state.with({ $0.facts = facts }), waiting.entrance, waiting.args), found.allowed else { return nil }
        guard let route = found.route else { return .refused("no-place") }
        return .moved(rebuilt(state.with { $0.waiting = nil }, route, found.args))
    }

    private func setFact(_ state: State, _ id: String, _ to: Value) -> Change {
        guard let fact = plan.part("facts")?.part(id), fact.flag("outside") else { return .noControl }
        if !isOne(fact, to) { return .noControl }
        return state.facts[id] == to ? .nothingToDo : .moved(state.with { $0.facts[id] = to })
    }

    private func setWidth(_ state: State, _ to: String) -> Change {
        if state.width == to { return .nothingToDo }
        func shut(_ node: Node) -> Node {
            switch node {
            case .shown: return node
            case .stack(let stack): return .stack(Stack(at: stack.at, items: stack.items.map(shut)))
            case .lanes(var lanes):
                lanes.open = false
                lanes.lanes = lanes.lanes.mapValues(shut)
                return .lanes(lanes)
            }
        }
        return .moved(state.with {
            $0.width = to
            $0.base = shut(state.base)
            $0.layers = state.layers.map { Layer(at: $0.at, content: shut($0.content)) }
        })
    }
}
