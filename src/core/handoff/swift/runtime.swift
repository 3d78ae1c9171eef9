/// A value as conditions and arguments have it.
public indirect enum Value: Equatable {
    case text(String)
    case number(Double)
    case truth(Bool)
    case record([String: Value])
    case list([Value])

    /// The value as text, numbers without an empty fraction.
    public var asText: String {
        switch self {
        case .text(let text): return text
        case .number(let number): return number == number.rounded() && abs(number) < 1e15 ? String(Int(number)) : String(number)
        case .truth(let truth): return truth ? "true" : "false"
        case .record, .list: return ""
        }
    }
}

public typealias Args = [String: Value]
public typealias Expression = (Values) -> Value?

/// What an expression may read.
public struct Values {
    let fact: Args
    let width: String
    let param: Args
    let item: Args?
    let field: Args?
    let link: Args?
    let rowBeside: (Int) -> Args?

    init(fact: Args, width: String, param: Args, item: Args? = nil, field: Args? = nil, link: Args? = nil, rowBeside: @escaping (Int) -> Args? = { _ in nil }) {
        self.fact = fact
        self.width = width
        self.param = param
        self.item = item
        self.field = field
        self.link = link
        self.rowBeside = rowBeside
    }

    var next: Args? { return rowBeside(1) }
    var prev: Args? { return rowBeside(-1) }
}

public struct Bar {
    let show: Bool
    let lead: String
}
public struct Param {
    let name: String
    let type: String
    var initial: Value? = nil
}
public struct Pages {
    let over: String
    let by: String
    var order: String? = nil
}
public struct Screen {
    var params: [Param] = []
    var up: String = "none"
    var bar: Bar? = nil
    var pages: Pages? = nil
    var coversTabs: Bool = false
}
public struct Container {
    let kind: String
    let start: String
    let members: [String]
    var bar: Bar? = nil
    var onBack: String = "leave"
    var chosenAgain: String = "nothing"
    var keeps: Bool = true
    var over: Bool = true
    var pinnedFrom: String = "never"
    var full: Bool = false
    var blocks: Bool = true
    var closeOn: [String] = []
}
public struct Move {
    let kind: String
    var to: String = ""
    var within: String? = nil
    var repeating: String = "copy"
    var tidy: String? = nil
    var orElse: String = "push"
    var show: String? = nil
    var instead: Bool = false
    var modal: String? = nil
    var fresh: Bool = false
    var drawer: String? = nil
    var action: String = "toggle"
}
public struct Given {
    let value: Expression
    let required: Bool
}
public struct Leg {
    let id: String
    let from: String
    let on: String
    let key: String
    var by: [String]? = nil
    var never: Bool = false
    var condition: Expression? = nil
    var shown: Expression? = nil
    var enabled: Expression? = nil
    var except: [String] = []
    var rows: String? = nil
    var move: Move? = nil
    var passes: Bool = false
    var pass: [String: Given] = [:]
    var set: [String: Expression] = [:]
    var resumes: Bool = false
}
public struct Entrance {
    let to: String
    var pattern: String? = nil
    var variables: [String] = []
    var pass: [String: Expression]? = nil
    var condition: Expression? = nil
    var otherwise: String? = nil
    var resume: Bool = false
    var onTop: Bool = false
}
public struct Fact {
    let initial: Value
    var values: [String]? = nil
    var outside: Bool = false
    var persists: Bool = false
}
public struct Rows {
    let key: String
    let all: () -> [Args]
}

/// The design as data. Legs are in the order in which they are asked.
public final class Plan {
    let root: String
    let screens: [String: Screen]
    let containers: [String: Container]
    let order: [String]
    let legs: [Leg]
    let entrances: [String: Entrance]
    let facts: [String: Fact]
    let rows: [String: Rows]
    private let places: [String: Int]
    private var owners: [String: String] = [:]

    init(root: String, screens: [String: Screen], containers: [(String, Container)], legs: [Leg], entrances: [String: Entrance], facts: [String: Fact], rows: [String: Rows]) {
        self.root = root
        self.screens = screens
        self.containers = Dictionary(containers, uniquingKeysWith: { first, _ in first })
        self.order = containers.map { $0.0 }
        self.legs = legs
        self.entrances = entrances
        self.facts = facts
        self.rows = rows
        self.places = Dictionary(legs.enumerated().map { ($0.element.id, $0.offset) }, uniquingKeysWith: { first, _ in first })
        for (id, container) in containers {
            for member in container.members where owners[member] == nil {
                owners[member] = id
            }
        }
    }

    func exists(_ id: String) -> Bool { return screens[id] != nil || containers[id] != nil }
    func kindOf(_ id: String?) -> String? { return id.flatMap { containers[$0]?.kind } }
    func ownerOf(_ id: String) -> String? { return owners[id] }
    func leg(_ id: String) -> Leg? { return places[id].map { legs[$0] } }
    func legsFrom(_ place: String, _ on: String) -> [Leg] { return legs.filter { $0.from == place && $0.on == on } }
    func earlierThan(_ leg: Leg) -> [Leg] { return legs.prefix(places[leg.id] ?? 0).filter { $0.key == leg.key } }
}

public indirect enum Event {
    case leg(String, item: Value? = nil, fields: Args? = nil, args: Args? = nil)
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

/// A screen being shown; two are the same only if they are one object.
public final class Shown {
    let at: String
    let args: Args
    let spent: [String]

    init(at: String, args: Args, spent: [String] = []) {
        self.at = at
        self.args = args
        self.spent = spent
    }
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
    var open: Bool = false

    func closed() -> Lanes {
        var copy = self
        copy.open = false
        return copy
    }
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
    var isShown: Bool {
        if case .shown = self { return true }
        return false
    }
    var asStack: Stack? {
        if case .stack(let stack) = self { return stack }
        return nil
    }
    var asLanes: Lanes? {
        if case .lanes(let lanes) = self { return lanes }
        return nil
    }
    var isDrawer: Bool { return asLanes?.drawer == true }
    var isOpen: Bool { return asLanes.map { $0.drawer && $0.open } ?? false }
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
    var shownIn: Shown {
        if case .shown(let shown)? = path.last { return shown }
        return Shown(at: at, args: [:])
    }
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
/// The whole navigation state.
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
    func withBranch(_ n: Int, _ node: Node) -> State {
        var copy = self
        if n == 0 { copy.base = node } else { copy.layers[n - 1].content = node }
        return copy
    }
    func withLayers(_ count: Int) -> State {
        var copy = self
        copy.layers = Array(layers.prefix(count))
        return copy
    }
    func update(_ n: Int, _ depth: Int, _ node: Node) -> State {
        return withBranch(n, replaceOn(path(n), depth, node))
    }
    func nearestStack(_ n: Int) -> (stack: Stack, depth: Int)? {
        let nodes = path(n)
        guard let depth = nodes.lastIndex(where: { $0.asStack != nil }), let stack = nodes[depth].asStack else { return nil }
        return (stack, depth)
    }
}

/// What a move comes to before it is made.
enum Change {
    case moved(State)
    case refused(String)
    case ignored(String)
    case left

    static let nothingToDo = Change.ignored("nothing-to-do")
    static let noControl = Change.ignored("no-such-control")

    var state: State? {
        if case .moved(let state) = self { return state }
        return nil
    }
    var isRefused: Bool {
        if case .refused = self { return true }
        return false
    }
    var isIgnored: Bool {
        if case .ignored = self { return true }
        return false
    }
    var isLeft: Bool {
        if case .left = self { return true }
        return false
    }
}

/// `outcome` is moved, ignored, refused or left; unless it is moved, the state is the one given.
public struct Outcome {
    let outcome: String
    let state: State
    var why: String? = nil
}

/// Moves through a design: pure functions from a state and an event to a state.
public final class Engine {
    private let plan: Plan
    private let widths = ["narrow", "middle", "wide"]

    public init(plan: Plan) {
        self.plan = plan
    }

    public func launch() -> State {
        let first = State(base: make(plan.root), layers: [], facts: plan.facts.mapValues { $0.initial }, width: "narrow")
        return arrive(nil, first) ?? first
    }

    public func step(_ state: State, _ event: Event) -> Outcome {
        switch attempt(state, event) {
        case .left: return Outcome(outcome: "left", state: state)
        case .ignored(let why): return Outcome(outcome: "ignored", state: state, why: why)
        case .refused(let why): return Outcome(outcome: "refused", state: state, why: why)
        case .moved(let next):
            guard var settled = arrive(state, next) else { return Outcome(outcome: "refused", state: state, why: "redirect-loop") }
            if let held = settled.held, settled.top <= held.depth { settled.held = nil }
            return Outcome(outcome: "moved", state: settled)
        }
    }

    /// The state in one line.
    public func line(_ state: State, openMarks: Bool = true) -> String {
        return ([lineOf(state.base, openMarks)] + state.layers.map { "\($0.at)(\(lineOf($0.content, openMarks)))" }).joined(separator: " + ")
    }

    private func lineOf(_ node: Node, _ openMarks: Bool) -> String {
        switch node {
        case .shown(let shown): return shown.at
        case .stack(let stack): return stack.at + "[" + stack.items.map { lineOf($0, openMarks) }.joined(separator: ",") + "]"
        case .lanes(let lanes):
            let members = plan.containers[lanes.at]?.members ?? []
            let ids = members.filter { lanes.lanes[$0] != nil } + lanes.lanes.keys.filter { !members.contains($0) }.sorted()
            let inside = ids.map { id in (id == lanes.active ? "*" : "") + (lanes.lanes[id].map { lineOf($0, openMarks) } ?? "") }
            return lanes.at + "{" + inside.joined(separator: ",") + "}" + (openMarks && node.isOpen ? "!" : "")
        }
    }

    // MARK: Making places

    private func make(_ id: String, _ args: Args = [:], _ around: [String] = []) -> Node {
        if plan.screens[id] != nil { return .shown(Shown(at: id, args: ownArguments(id, args))) }
        guard let container = plan.containers[id], container.kind != "modal", !around.contains(id) else { return .shown(Shown(at: id, args: [:])) }
        let start = make(container.start, args, around + [id])
        if container.kind == "stack" { return .stack(Stack(at: id, items: [start])) }
        return .lanes(Lanes(at: id, drawer: container.kind == "drawer", active: container.start, lanes: [container.start: start], visited: [container.start]))
    }

    private func ownArguments(_ id: String, _ args: Args) -> Args {
        var own: Args = [:]
        for param in plan.screens[id]?.params ?? [] {
            if let value = args[param.name] ?? param.initial { own[param.name] = value }
        }
        return own
    }

    private func firstScreen(_ id: String, _ seen: [String] = []) -> String? {
        if seen.contains(id) { return nil }
        if plan.screens[id] != nil { return id }
        return plan.containers[id].flatMap { firstScreen($0.start, seen + [id]) }
    }

    private func tree(_ id: String) -> Set<String> {
        var seen: Set<String> = []
        var waiting = [id]
        while let next = waiting.popLast() {
            if seen.insert(next).inserted { waiting += plan.containers[next]?.members ?? [] }
        }
        return seen
    }

    private func upTarget(_ id: String) -> String? {
        let up = plan.screens[id]?.up ?? "none"
        if up == "none" { return nil }
        if up != "auto" { return up }
        guard let owner = plan.ownerOf(id).flatMap({ plan.containers[$0] }), owner.kind == "stack", owner.start != id else { return nil }
        return owner.start
    }

    private func trail(_ id: String, _ args: Args) -> [Node] {
        var ids = [id]
        while let up = upTarget(ids[0]), !ids.contains(up), plan.exists(up), plan.ownerOf(up) == plan.ownerOf(id) { ids.insert(up, at: 0) }
        return ids.map { make($0, args) }
    }

    private func rebuild(_ state: State, _ id: String, _ args: Args) -> Change {
        if !plan.exists(id) { return .refused("no-place") }
        var owners: [String] = []
        var owner = plan.ownerOf(id)
        while let at = owner, !owners.contains(at) {
            owners.insert(at, at: 0)
            if plan.kindOf(at) == "modal" || at == plan.root { break }
            owner = plan.ownerOf(at)
        }
        var next = state
        if plan.kindOf(id) == "modal" {
            next.base = make(plan.root)
            next.layers = [Layer(at: id, content: make(plan.containers[id]?.start ?? "", args))]
        } else if let outermost = owners.first, plan.kindOf(outermost) == "modal" {
            next.base = make(plan.root)
            next.layers = [Layer(at: outermost, content: build(Array(owners.dropFirst()), id, args))]
        } else {
            next.base = build(owners, id, args)
            next.layers = []
        }
        return .moved(next)
    }

    private func build(_ owners: [String], _ id: String, _ args: Args) -> Node {
        guard let at = owners.first else { return make(id, args) }
        let rest = Array(owners.dropFirst())
        let inner = rest.first ?? id
        switch plan.kindOf(at) {
        case "stack": return .stack(Stack(at: at, items: rest.isEmpty ? trail(id, args) : [build(rest, id, args)]))
        case "tabs": return .lanes(Lanes(at: at, drawer: false, active: inner, lanes: [inner: build(rest, id, args)], visited: [inner]))
        case "drawer": return .lanes(Lanes(at: at, drawer: true, active: inner, lanes: [inner: build(rest, id, args)], visited: [inner]))
        default: return build(rest, id, args)
        }
    }

    // MARK: Lanes and Back

    private func isPinned(_ drawer: String, _ width: String) -> Bool {
        let from = plan.containers[drawer]?.pinnedFrom ?? "never"
        guard from != "never", let now = widths.firstIndex(of: width), let least = widths.firstIndex(of: from) else { return false }
        return now >= least
    }

    private func switchTo(_ node: Lanes, _ id: String, _ lane: Node) -> Lanes {
        var next = node
        next.lanes[id] = lane
        if node.active != id && plan.containers[node.at]?.keeps == false { next.lanes[node.active] = nil }
        next.active = id
        next.visited = node.visited.filter { $0 != id } + [id]
        next.open = false
        return next
    }

    private func select(_ node: Lanes, _ id: String, fresh: Bool = false) -> Lanes {
        return switchTo(node, id, (fresh ? nil : node.lanes[id]) ?? make(id))
    }

    private func activate(_ state: State, _ id: String?) -> (state: State, branch: Int, depth: Int)? {
        guard let id = id else { return nil }
        for n in stride(from: state.top, through: 0, by: -1) {
            guard let found = bringUp(state.branch(n), id, []) else { continue }
            let depth = found.path.firstIndex { $0.at == id && !$0.isShown } ?? 0
            return (state.withLayers(n).withBranch(n, found), n, depth)
        }
        return nil
    }

    private func bringUp(_ node: Node, _ id: String, _ around: [String]) -> Node? {
        if node.isShown || around.contains(node.at) { return nil }
        if node.at == id { return node }
        let within = around + [node.at]
        switch node {
        case .shown: return nil
        case .stack(var stack):
            for i in stack.items.indices.reversed() {
                guard let found = bringUp(stack.items[i], id, within) else { continue }
                stack.items = Array(stack.items.prefix(i)) + [found]
                return .stack(stack)
            }
            return nil
        case .lanes(let lanes):
            var seen: Set<String> = []
            for lane in [lanes.active] + (plan.containers[lanes.at]?.members ?? []) + lanes.lanes.keys.sorted() where seen.insert(lane).inserted {
                guard let content = lanes.lanes[lane] ?? (tree(lane).contains(id) ? make(lane) : nil) else { continue }
                if let found = bringUp(content, id, within) { return .lanes(switchTo(lanes, lane, found)) }
            }
            return nil
        }
    }

    private func goBack(_ state: State, _ n: Int) -> Change {
        let nodes = state.path(n)
        if let open = nodes.lastIndex(where: { $0.isOpen }), let drawer = nodes[open].asLanes {
            let closes = plan.containers[drawer.at]?.closeOn.contains("back") == true
            return closes ? .moved(state.update(n, open, .lanes(drawer.closed()))) : .nothingToDo
        }
        for depth in nodes.indices.reversed() {
            if let next = backIn(nodes[depth]) { return .moved(state.update(n, depth, next)) }
        }
        if n == 0 { return .left }
        return plan.containers[state.layers[n - 1].at]?.closeOn.contains("back") == true ? .moved(state.withLayers(n - 1)) : .nothingToDo
    }

    private func backIn(_ node: Node) -> Node? {
        switch node {
        case .shown: return nil
        case .stack(var stack):
            if stack.items.count < 2 { return nil }
            stack.items.removeLast()
            return .stack(stack)
        case .lanes(let lanes):
            guard let container = plan.containers[lanes.at] else { return nil }
            if container.onBack == "start" { return lanes.active == container.start ? nil : .lanes(select(lanes, container.start)) }
            if container.onBack != "previous" { return nil }
            let visited = lanes.visited.filter { $0 != lanes.active }
            guard let previous = visited.last else { return nil }
            var next = select(lanes, previous)
            next.visited = visited
            return .lanes(next)
        }
    }

    // MARK: Moves

    private func placesExist(_ move: Move) -> Bool {
        func showable(_ id: String) -> Bool { return plan.exists(id) && plan.kindOf(id) != "modal" }
        switch move.kind {
        case "push", "reset": return showable(move.to) && (move.within == nil || move.within == "beneath" || plan.kindOf(move.within) == "stack")
        case "replace": return showable(move.to)
        case "return": return plan.screens[move.to] != nil
        case "open": return plan.kindOf(move.to) == "modal" && (move.show.map(showable) ?? true)
        case "close": return move.modal == nil || plan.kindOf(move.modal) == "modal"
        case "select":
            let owner = plan.kindOf(plan.ownerOf(move.to))
            return plan.exists(move.to) && (owner == "tabs" || owner == "drawer")
        case "menu": return move.drawer == nil || plan.kindOf(move.drawer) == "drawer"
        default: return true
        }
    }

    private func makeMove(_ state: State, _ n: Int, _ move: Move, _ args: Args, _ passes: Bool) -> Change {
        switch move.kind {
        case "push": return tidied(state, n, move) { push($0, n, move, args, passes) }
        case "replace": return replace(state, n, move.to, args)
        case "reset": return reset(state, n, move, args)
        case "return": return returnTo(state, n, move, args)
        case "open": return openModal(state, n, move, args)
        case "close":
            let at = move.modal == nil ? n - 1 : (state.layers.firstIndex { $0.at == move.modal } ?? -1)
            return at < 0 ? .nothingToDo : .moved(state.withLayers(at))
        case "select": return tidied(state, n, move) { selectTo($0, state, move) }
        case "menu": return menu(state, n, move)
        case "back": return goBack(state, n)
        case "up": return goUp(state, n)
        case "proceed": return proceed(state)
        default: return .left
        }
    }

    private struct Target {
        let state: State
        let branch: Int
        let depth: Int
        let stack: Stack

        var around: [Node] { return Array(state.path(branch).prefix(depth + 1)) }
        func fill(_ items: [Node]) -> State {
            return state.update(branch, depth, .stack(Stack(at: stack.at, items: items)))
        }
    }

    private func targetStack(_ state: State, _ n: Int, _ within: String?) -> Target? {
        if within == nil || within == "beneath" {
            let on = within == "beneath" && n > 0 ? n - 1 : n
            guard let found = state.nearestStack(on) else { return nil }
            return Target(state: on < n ? state.withLayers(on) : state, branch: on, depth: found.depth, stack: found.stack)
        }
        guard let found = activate(state, within), let stack = found.state.path(found.branch)[found.depth].asStack else { return nil }
        return Target(state: found.state, branch: found.branch, depth: found.depth, stack: stack)
    }

    private func missing(_ within: String?) -> Change {
        return .refused(within == nil || within == "beneath" ? "no-stack" : "not-showing")
    }

    private func insideItself(_ id: String, _ around: [Node]) -> Bool {
        if plan.containers[id] == nil { return false }
        let within = tree(id)
        return around.contains { !$0.isShown && within.contains($0.at) }
    }

    private func push(_ state: State, _ n: Int, _ move: Move, _ args: Args, _ passes: Bool) -> Change {
        guard let target = targetStack(state, n, move.within), let last = target.stack.items.last else { return missing(move.within) }
        let items = target.stack.items
        let made = make(move.to, args)
        let same = last.shownIn.at == made.shownIn.at && last.shownIn.args == made.shownIn.args
        if move.repeating == "stay" && last.at == move.to && same { return .nothingToDo }
        if move.repeating == "rewind", let at = items.lastIndex(where: { $0.at == move.to }) {
            let kept = items[at]
            let next = target.fill(Array(items.prefix(at)) + [passes ? withArguments(kept, args) : kept])
            return at == items.count - 1 && !passes && line(state) == line(next) ? .nothingToDo : .moved(next)
        }
        return insideItself(move.to, target.around) ? .refused("inside-itself") : .moved(target.fill(items + [made]))
    }

    private func withArguments(_ node: Node, _ args: Args) -> Node {
        let nodes = node.path
        let screen = node.shownIn
        return replaceOn(nodes, nodes.count - 1, .shown(Shown(at: screen.at, args: ownArguments(screen.at, args), spent: screen.spent)))
    }

    private func replace(_ state: State, _ n: Int, _ to: String, _ args: Args) -> Change {
        let nodes = state.path(n)
        if insideItself(to, Array(nodes.dropLast())) { return .refused("inside-itself") }
        return .moved(state.update(n, nodes.count - 1, make(to, args)))
    }

    private func reset(_ state: State, _ n: Int, _ move: Move, _ args: Args) -> Change {
        guard let target = targetStack(state, n, move.within) else {
            return move.within == nil || (move.within == "beneath" && n == 0) ? replace(state, n, move.to, args) : missing(move.within)
        }
        return insideItself(move.to, target.around) ? .refused("inside-itself") : .moved(target.fill([make(move.to, args)]))
    }

    private func returnTo(_ state: State, _ n: Int, _ move: Move, _ args: Args) -> Change {
        if state.current(n).at == move.to { return .nothingToDo }
        let nodes = state.path(n)
        for depth in nodes.indices.reversed() {
            guard var stack = nodes[depth].asStack, let at = stack.items.dropLast().lastIndex(where: { $0.shownIn.at == move.to }) else { continue }
            stack.items = Array(stack.items.prefix(at + 1))
            return .moved(state.update(n, depth, .stack(stack)))
        }
        switch move.orElse {
        case "nothing": return .nothingToDo
        case "replace": return replace(state, n, move.to, args)
        default: return push(state, n, Move(kind: "push", to: move.to), args, false)
        }
    }

    private func openModal(_ state: State, _ n: Int, _ move: Move, _ args: Args) -> Change {
        var before = withDrawersClosed(state, n)
        if let already = state.layers.firstIndex(where: { $0.at == move.to }) {
            return already == state.top - 1 ? .nothingToDo : .moved(before.withLayers(already + 1))
        }
        if move.instead && !before.layers.isEmpty { before.layers.removeLast() }
        before.layers.append(Layer(at: move.to, content: make(move.show ?? plan.containers[move.to]?.start ?? "", args)))
        return .moved(before)
    }

    private func withDrawersClosed(_ state: State, _ n: Int) -> State {
        var out = state
        for depth in state.path(n).indices {
            if let drawer = out.path(n)[depth].asLanes, drawer.drawer, drawer.open { out = out.update(n, depth, .lanes(drawer.closed())) }
        }
        return out
    }

    private func selectTo(_ state: State, _ before: State, _ move: Move) -> Change {
        guard let found = activate(state, plan.ownerOf(move.to)), let lanes = found.state.path(found.branch)[found.depth].asLanes else { return .refused("not-showing") }
        let next = found.state.update(found.branch, found.depth, .lanes(select(lanes, move.to, fresh: move.fresh)))
        return !move.fresh && line(before) == line(next) ? .nothingToDo : .moved(next)
    }

    private func menu(_ state: State, _ n: Int, _ move: Move) -> Change {
        let nodes = state.path(n)
        let at = move.drawer == nil ? nodes.lastIndex { $0.isDrawer } : nodes.firstIndex { $0.isDrawer && $0.at == move.drawer }
        guard let depth = at, var drawer = nodes[depth].asLanes, !isPinned(drawer.at, state.width) else { return .nothingToDo }
        let opens = move.action == "open" || (move.action != "close" && !drawer.open)
        if opens == drawer.open { return .nothingToDo }
        drawer.open = opens
        return .moved(state.update(n, depth, .lanes(drawer)))
    }

    private func popped(_ state: State, _ n: Int, _ found: (stack: Stack, depth: Int)) -> State {
        return state.update(n, found.depth, .stack(Stack(at: found.stack.at, items: Array(found.stack.items.dropLast()))))
    }

    private func goUp(_ state: State, _ n: Int) -> Change {
        let found = state.nearestStack(n)
        let deep = found.flatMap { $0.stack.items.count > 1 ? $0 : nil }
        if n > 0 { return deep.map { .moved(popped(state, n, $0)) } ?? .nothingToDo }
        let source = state.current(n)
        guard let target = upTarget(source.at) else { return .nothingToDo }
        func matches(_ item: Node) -> Bool { return item.at == target || (plan.screens[target] != nil && item.shownIn.at == target) }
        if let found = found, let at = found.stack.items.dropLast().lastIndex(where: matches) {
            return .moved(state.update(n, found.depth, .stack(Stack(at: found.stack.at, items: Array(found.stack.items.prefix(at + 1))))))
        }
        if !plan.exists(target) { return .refused("no-place") }
        let owner = plan.ownerOf(target)
        guard plan.kindOf(owner) != "modal", let up = activate(deep.map { popped(state, n, $0) } ?? state, owner) else { return rebuild(state, target, source.args) }
        switch up.state.path(up.branch)[up.depth] {
        case .shown: return rebuild(state, target, source.args)
        case .lanes(let lanes): return .moved(up.state.update(up.branch, up.depth, .lanes(select(lanes, target))))
        case .stack(var stack):
            let at = stack.items.lastIndex(where: matches)
            stack.items = at.map { Array(stack.items.prefix($0 + 1)) } ?? trail(target, source.args)
            return .moved(up.state.update(up.branch, up.depth, .stack(stack)))
        }
    }

    private func tidied(_ state: State, _ n: Int, _ move: Move, _ make: (State) -> Change) -> Change {
        let untidied = make(state)
        let named = move.kind == "select" || (move.within != nil && move.within != "beneath")
        guard move.tidy != nil, named, !untidied.isRefused, let found = state.nearestStack(n), found.stack.items.count > 1 else { return untidied }
        let items = move.tidy == "source" ? Array(found.stack.items.dropLast()) : Array(found.stack.items.prefix(1))
        return make(state.update(n, found.depth, .stack(Stack(at: found.stack.at, items: items))))
    }

    // MARK: What expressions read

    private func valuesOn(_ state: State, _ screen: Shown, _ item: Args? = nil, _ field: Args? = nil) -> Values {
        return Values(fact: state.facts, width: state.width, param: screen.args, item: item, field: field) { self.neighbour(screen, $0) }
    }

    private func neighbour(_ screen: Shown, _ step: Int) -> Args? {
        guard let pages = plan.screens[screen.at]?.pages, let type = plan.rows[pages.over] else { return nil }
        var rows = type.all()
        if let order = pages.order { rows = rows.sorted { before($0[order], $1[order]) } }
        let by = screen.args[pages.by]
        guard let at = rows.firstIndex(where: { (by != nil && $0[type.key] == by) || by == .record($0) }) else { return nil }
        return rows.indices.contains(at + step) ? rows[at + step] : nil
    }

    private func before(_ a: Value?, _ b: Value?) -> Bool {
        if case .number(let x)? = a, case .number(let y)? = b { return x < y }
        return (a?.asText ?? "") < (b?.asText ?? "")
    }

    private func rowOf(_ leg: Leg, _ item: Value) -> Args? {
        if case .record(let row) = item { return row }
        guard let type = leg.rows.flatMap({ plan.rows[$0] }) else { return nil }
        let rows = type.all()
        if let row = rows.first(where: { $0[type.key] == item || $0[type.key]?.asText == item.asText }) { return row }
        if case .number(let at) = item, rows.indices.contains(Int(at)) { return rows[Int(at)] }
        return nil
    }

    private func holds(_ expression: Expression?, _ v: Values) -> Bool {
        return expression.map { $0(v) == .truth(true) } ?? true
    }

    private func destination(_ state: State, _ id: String, _ given: Args) -> (allowed: Bool, to: String?, args: Args)? {
        guard let entrance = plan.entrances[id] else { return nil }
        let v = Values(fact: state.facts, width: state.width, param: [:], link: given.mapValues { .text($0.asText) })
        let allowed = holds(entrance.condition, v)
        let to = plan.screens[entrance.to] == nil ? nil : entrance.to
        if let pass = entrance.pass { return (allowed, to, pass.compactMapValues { $0(v) }) }
        var args: Args = [:]
        for param in firstScreen(entrance.to).flatMap({ plan.screens[$0]?.params }) ?? [] where entrance.variables.contains(param.name) {
            if let value = given[param.name].flatMap({ fromText($0, param.type) }) { args[param.name] = value }
        }
        return (allowed, to, args)
    }

    private func fromText(_ value: Value, _ type: String) -> Value? {
        guard case .text(let text) = value else { return value }
        switch type {
        case "integer": return Int(text).map { .number(Double($0)) }
        case "number": return Double(text).map { .number($0) }
        case "boolean": return text == "true" ? .truth(true) : text == "false" ? .truth(false) : nil
        default: return value
        }
    }

    // MARK: Events

    private func arrive(_ before: State?, _ start: State) -> State? {
        var last = before
        var state = start
        var count = 0
        while true {
            if let before = before, let last = last, state.top < last.top, state.top <= before.top, before.current(state.top) === state.current(state.top) { return state }
            let screen = state.current(state.top)
            let v = valuesOn(state, screen)
            let legs = isSource(state, state.top, screen.at) ? plan.legsFrom(screen.at, "arrive") : []
            guard let firing = legs.first(where: { canFire($0, screen, v) }), let next = fire(state, state.top, firing, v).state else { return state }
            if count >= 32 { return nil }
            count += 1
            last = state
            state = next
        }
    }

    private func inReach(_ state: State) -> [Int] {
        var out = [state.top]
        while let n = out.last, n > 0, plan.containers[state.layers[n - 1].at]?.blocks == false { out.append(n - 1) }
        return out
    }

    private func isSource(_ state: State, _ n: Int, _ place: String, drawersClosed: Bool = false) -> Bool {
        let nodes = state.path(n)
        let found = nodes.last { $0.at == place }
        if !drawersClosed && nodes.contains(where: { $0.isOpen }) { return found?.isOpen == true }
        guard let node = found else { return n > 0 && state.layers[n - 1].at == place }
        return !node.isDrawer || isPinned(place, state.width)
    }

    private func canFire(_ leg: Leg, _ screen: Shown, _ v: Values, by: String? = nil) -> Bool {
        return ready(leg, screen, v) && !plan.earlierThan(leg).contains { answers($0, by) && ready($0, screen, v) }
    }

    private func answers(_ leg: Leg, _ by: String?) -> Bool {
        guard let by = by, let own = leg.by else { return true }
        return own.contains(by)
    }

    private func ready(_ leg: Leg, _ screen: Shown, _ v: Values) -> Bool {
        if leg.never || (leg.on == "after" && screen.spent.contains(leg.id)) || leg.except.contains(screen.at) { return false }
        return holds(leg.condition, v) && holds(leg.shown, v) && holds(leg.enabled, v)
    }

    private func fire(_ state: State, _ n: Int, _ leg: Leg, _ v: Values, _ given: Args? = nil) -> Change {
        let nodes = state.path(n)
        let drawer = leg.move?.kind == "menu" ? nil : nodes.firstIndex { $0.isOpen && $0.at == leg.from }
        var before = state
        if let depth = drawer, let lanes = nodes[depth].asLanes { before = state.update(n, depth, .lanes(lanes.closed())) }
        if leg.on == "after" {
            let screen = before.current(n)
            before = before.update(n, before.path(n).count - 1, .shown(Shown(at: screen.at, args: screen.args, spent: screen.spent + [leg.id])))
        }
        let facts = factsAfter(leg, state, v)
        let resumed = leg.resumes ? resume(before, facts ?? state.facts) : nil
        if let move = leg.move, resumed == nil, !placesExist(move) { return .refused("no-place") }
        let args = given ?? argumentsOf(leg, v)
        guard let set = facts, resumed != nil || args != nil else { return .refused("no-value") }
        let sets = set != state.facts
        let change: Change
        if let resumed = resumed {
            change = resumed
        } else if let move = leg.move {
            change = makeMove(before, n, move, args ?? [:], leg.passes || given != nil)
        } else {
            change = sets ? .moved(before) : .nothingToDo
        }
        if var next = change.state {
            if sets { next.facts = set }
            return .moved(next)
        }
        return change.isIgnored && drawer != nil ? .moved(before) : change
    }

    private func argumentsOf(_ leg: Leg, _ v: Values) -> Args? {
        var args: Args = [:]
        for (name, given) in leg.pass {
            if let value = given.value(v) { args[name] = value } else if given.required { return nil }
        }
        return args
    }

    private func factsAfter(_ leg: Leg, _ state: State, _ v: Values) -> Args? {
        var facts = state.facts
        for (id, expression) in leg.set {
            guard let value = expression(v) else { return nil }
            if let values = plan.facts[id]?.values, !values.contains(value.asText) { return nil }
            facts[id] = value
        }
        return facts
    }

    private func resume(_ state: State, _ facts: Args) -> Change? {
        guard let waiting = state.waiting else { return nil }
        var next = state
        next.facts = facts
        guard let found = destination(next, waiting.entrance, waiting.args), found.allowed else { return nil }
        next = state
        next.waiting = nil
        return found.to.map { rebuild(next, $0, found.args) } ?? .refused("no-place")
    }

    private func proceed(_ state: State) -> Change {
        guard let held = state.held else { return .nothingToDo }
        var beneath = state.withLayers(held.depth)
        beneath.held = nil
        let change = unasked(beneath, held.event, held: true)
        return change.isIgnored ? .moved(beneath) : change
    }

    private func attempt(_ state: State, _ event: Event) -> Change {
        let tried = unasked(state, event, held: false)
        guard let by = event.departing else { return tried }
        let leaves = tried.isLeft || tried.state.map { line($0, openMarks: false) != line(state, openMarks: false) } == true
        if !leaves { return tried }
        let n = controlOf(state, event, held: false)?.branch ?? state.top
        let places = state.path(n).map { $0.at }.reversed() + (n > 0 ? [state.layers[n - 1].at] : [])
        let screen = state.current(n)
        let v = valuesOn(state, screen)
        let legs = places.filter { isSource(state, n, $0, drawersClosed: true) }.flatMap { plan.legsFrom($0, "depart") }
        guard let asked = legs.first(where: { answers($0, by) && canFire($0, screen, v, by: by) }) else { return tried }
        let instead = fire(state, n, asked, v)
        if asked.move == nil {
            guard let set = instead.state, var next = tried.state else { return tried }
            next.facts = set.facts
            return .moved(next)
        }
        if instead.isLeft { return instead }
        guard var next = instead.state else { return tried }
        if next.top > state.top { next.held = Held(event: event, depth: state.top) }
        return .moved(next)
    }

    private func useLeg(_ state: State, _ id: String, _ item: Value?, _ fields: Args?, _ args: Args?) -> Change {
        guard let leg = plan.leg(id), leg.on != "arrive", leg.on != "depart" else { return .noControl }
        let row = item.flatMap { rowOf(leg, $0) }
        if item != nil && row == nil && leg.rows != nil { return .noControl }
        for n in inReach(state) {
            let screen = state.current(n)
            let v = valuesOn(state, screen, row, fields)
            if isSource(state, n, leg.from) && canFire(leg, screen, v) { return fire(state, n, leg, v, args) }
        }
        return .noControl
    }

    private func unasked(_ state: State, _ event: Event, held: Bool) -> Change {
        switch event {
        case .leg(let id, let item, let fields, let args): return useLeg(state, id, item, fields, args)
        case .tab(let to), .pick(let to): return choose(state, event, to, held: held)
        case .lead: return pressLead(state)
        case .close(let via): return closeBy(state, via)
        case .back: return goBack(state, state.top)
        case .enter(let id, let args, let cold): return enter(state, id, args, cold)
        case .launch: return .moved(anew(state))
        case .fact(let id, let value): return setFact(state, id, value)
        case .width(let to): return setWidth(state, to)
        }
    }

    private func controlOf(_ state: State, _ event: Event, held: Bool) -> (branch: Int, depth: Int, node: Lanes)? {
        let to: String
        let picks: Bool
        switch event {
        case .tab(let id): (to, picks) = (id, false)
        case .pick(let id): (to, picks) = (id, true)
        default: return nil
        }
        for n in inReach(state) {
            let nodes = state.path(n)
            let drawerOpen = nodes.contains { $0.isOpen }
            for depth in nodes.indices.reversed() {
                guard let lanes = nodes[depth].asLanes, plan.containers[lanes.at]?.members.contains(to) == true else { continue }
                let picked = lanes.drawer && (held || lanes.open || isPinned(lanes.at, state.width))
                let tapped = !lanes.drawer && !drawerOpen && plan.screens[nodes[depth].shownIn.at]?.coversTabs != true
                if picks ? picked : tapped { return (n, depth, lanes) }
            }
        }
        return nil
    }

    private func choose(_ state: State, _ event: Event, _ to: String, held: Bool) -> Change {
        guard let control = controlOf(state, event, held: held) else { return .noControl }
        var node = control.node
        func put(_ next: Lanes) -> Change { return .moved(state.update(control.branch, control.depth, .lanes(next))) }
        if node.active != to { return put(select(node, to)) }
        if node.drawer { return node.open ? put(node.closed()) : .nothingToDo }
        guard plan.containers[node.at]?.chosenAgain == "root", var lane = node.lanes[node.active]?.asStack, lane.items.count > 1 else { return .nothingToDo }
        lane.items = Array(lane.items.prefix(1))
        node.lanes[node.active] = .stack(lane)
        return put(node)
    }

    /// What the control at the start of the bar is: back, up, menu, idle or none.
    public func leadOf(_ state: State) -> String {
        let n = state.top
        let bar = barOf(state, n)
        if !bar.show || bar.lead == "none" { return "none" }
        let canPop = (state.nearestStack(n)?.stack.items.count ?? 0) > 1
        let up = n == 0 && upTarget(state.current(n).at) != nil
        switch bar.lead {
        case "auto": return canPop ? "back" : up ? "up" : "none"
        case "back": return canPop ? "back" : "none"
        case "up": return n == 0 ? (up ? "up" : "idle") : canPop ? "back" : "idle"
        default:
            guard let drawer = state.path(n).last(where: { $0.isDrawer }) else { return "idle" }
            return isPinned(drawer.at, state.width) ? "none" : "menu"
        }
    }

    private func barOf(_ state: State, _ n: Int) -> Bar {
        let nodes = Array(state.path(n).reversed())
        if let own = plan.screens[nodes[0].at]?.bar { return own }
        let around = nodes.dropFirst().map { $0.at } + (n > 0 ? [state.layers[n - 1].at] : [])
        return around.compactMap { plan.containers[$0]?.bar }.first ?? Bar(show: true, lead: "auto")
    }

    private func pressLead(_ state: State) -> Change {
        let n = state.top
        let nodes = state.path(n)
        let lead = leadOf(state)
        let depth = nodes.lastIndex { $0.isDrawer }
        let drawer = depth.flatMap { nodes[$0].asLanes }
        if nodes.contains(where: { $0.isOpen }) {
            guard lead == "menu", let at = depth, let open = drawer, open.open, plan.containers[open.at]?.over == false else { return .nothingToDo }
            return .moved(state.update(n, at, .lanes(open.closed())))
        }
        switch lead {
        case "none": return .noControl
        case "up": return goUp(state, n)
        case "menu":
            guard let at = depth, var opened = drawer else { return .nothingToDo }
            opened.open = true
            return .moved(state.update(n, at, .lanes(opened)))
        case "back": return state.nearestStack(n).map { .moved(popped(state, n, $0)) } ?? .nothingToDo
        default: return .nothingToDo
        }
    }

    private func closeBy(_ state: State, _ via: String) -> Change {
        if via == "back" { return .noControl }
        let n = state.top
        let nodes = state.path(n)
        if let open = nodes.lastIndex(where: { $0.isOpen }), let drawer = nodes[open].asLanes {
            return plan.containers[drawer.at]?.closeOn.contains(via) == true ? .moved(state.update(n, open, .lanes(drawer.closed()))) : .noControl
        }
        guard n > 0, let modal = plan.containers[state.layers[n - 1].at], modal.closeOn.contains(via), !(via == "outside" && modal.full) else { return .noControl }
        return .moved(state.withLayers(n - 1))
    }

    private func anew(_ state: State) -> State {
        var facts: Args = [:]
        for (id, fact) in plan.facts { facts[id] = (fact.persists || fact.outside ? state.facts[id] : nil) ?? fact.initial }
        return State(base: make(plan.root), layers: [], facts: facts, width: state.width)
    }

    private func enter(_ state: State, _ id: String, _ args: Args, _ cold: Bool) -> Change {
        guard let entrance = plan.entrances[id] else { return .noControl }
        var start = cold ? anew(state) : state
        guard let found = destination(start, id, args) else { return .noControl }
        if !found.allowed {
            guard let otherwise = entrance.otherwise else { return cold ? .moved(start) : .refused("not-allowed") }
            if entrance.resume { start.waiting = Waiting(entrance: id, args: args) }
            return rebuild(start, otherwise, [:])
        }
        guard let to = found.to else { return .refused("no-place") }
        var bare = start
        bare.layers = []
        bare = withDrawersClosed(bare, 0)
        guard !cold, entrance.onTop, let stack = bare.nearestStack(0) else { return rebuild(start, to, found.args) }
        return .moved(bare.update(0, stack.depth, .stack(Stack(at: stack.stack.at, items: stack.stack.items + [make(to, found.args)]))))
    }

    private func setFact(_ state: State, _ id: String, _ value: Value) -> Change {
        guard let fact = plan.facts[id], fact.outside else { return .noControl }
        switch value {
        case .truth: if fact.values != nil { return .noControl }
        case .text(let text): if fact.values?.contains(text) != true { return .noControl }
        default: return .noControl
        }
        if state.facts[id] == value { return .nothingToDo }
        var next = state
        next.facts[id] = value
        return .moved(next)
    }

    private func setWidth(_ state: State, _ to: String) -> Change {
        if state.width == to { return .nothingToDo }
        func shut(_ node: Node) -> Node {
            switch node {
            case .shown: return node
            case .stack(var stack):
                stack.items = stack.items.map(shut)
                return .stack(stack)
            case .lanes(let lanes):
                var next = lanes.closed()
                next.lanes = lanes.lanes.mapValues(shut)
                return .lanes(next)
            }
        }
        var next = state
        next.width = to
        next.base = shut(state.base)
        next.layers = state.layers.map { Layer(at: $0.at, content: shut($0.content)) }
        return .moved(next)
    }
}

// MARK: What conditions and arguments are made of

func member(_ value: Value?, _ name: String) -> Value? {
    if case .record(let record)? = value { return record[name] }
    return nil
}
func member(_ bag: Args?, _ name: String) -> Value? {
    return bag?[name]
}
func not(_ a: Value?) -> Value? {
    return a.map { .truth($0 != .truth(true)) }
}
func and(_ a: Value?, _ b: () -> Value?) -> Value? {
    if a == .truth(false) { return .truth(false) }
    let other = b()
    if other == .truth(false) { return .truth(false) }
    return a == nil || other == nil ? nil : .truth(true)
}
func or(_ a: Value?, _ b: () -> Value?) -> Value? {
    if a == .truth(true) { return .truth(true) }
    let other = b()
    if other == .truth(true) { return .truth(true) }
    return a == nil || other == nil ? nil : .truth(false)
}
func either(_ test: Value?, _ yes: () -> Value?, _ no: () -> Value?) -> Value? {
    guard let test = test else { return nil }
    return test == .truth(true) ? yes() : no()
}
func equal(_ a: Value?, _ b: Value?) -> Value? {
    guard let a = a, let b = b else { return nil }
    return .truth(a == b)
}
func ordered(_ op: String, _ a: Value?, _ b: Value?) -> Value? {
    guard let a = a, let b = b else { return nil }
    let less: Bool
    let same = a == b
    if case .number(let x) = a, case .number(let y) = b { less = x < y } else { less = a.asText < b.asText }
    switch op {
    case "<": return .truth(less)
    case "<=": return .truth(less || same)
    case ">": return .truth(!less && !same)
    default: return .truth(!less)
    }
}
func plus(_ a: Value?, _ b: Value?) -> Value? {
    guard let a = a, let b = b else { return nil }
    if case .number(let x) = a, case .number(let y) = b { return .number(x + y) }
    return .text(a.asText + b.asText)
}
func minus(_ a: Value?) -> Value? {
    if case .number(let number)? = a { return .number(-number) }
    return nil
}
