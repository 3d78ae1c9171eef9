/// A state as data and back: for when the system ends the app.
enum Kept {
    static func data(_ node: Node) -> Value {
        switch node {
        case .shown(let shown):
            return .record(["kind": .text("shown"), "at": .text(shown.at), "args": .record(shown.args), "spent": .list(shown.spent.map { .text($0) })])
        case .stack(let stack):
            return .record(["kind": .text("stack"), "at": .text(stack.at), "items": .list(stack.items.map { data($0) })])
        case .lanes(let lanes):
            return .record([
                "kind": .text("lanes"), "at": .text(lanes.at), "drawer": .truth(lanes.drawer), "active": .text(lanes.active),
                "lanes": .record(lanes.lanes.mapValues { data($0) }), "visited": .list(lanes.visited.map { .text($0) }), "open": .truth(lanes.open),
            ])
        }
    }

    static func node(_ part: Part) -> Node {
        let at = part.text("at") ?? ""
        switch part.text("kind") {
        case "shown": return .shown(Shown(at: at, args: part["args"]?.record ?? [:], spent: part.texts("spent")))
        case "stack": return .stack(Stack(at: at, items: part.parts("items").map { node($0) }))
        default:
            let lanes = (part["lanes"]?.record ?? [:]).mapValues { node(Part($0.record ?? [:])) }
            return .lanes(Lanes(at: at, drawer: part.flag("drawer"), active: part.text("active") ?? "", lanes: lanes, visited: part.texts("visited"), open: part.flag("open")))
        }
    }

    static func data(_ event: Event) -> Value {
        switch event {
        case .leg(let leg, let item, let fields):
            return .record(["do": .text("leg"), "leg": .text(leg), "item": item ?? .nothing, "fields": fields.map { .record($0) } ?? .nothing])
        case .tab(let to): return .record(["do": .text("tab"), "to": .text(to)])
        case .pick(let to): return .record(["do": .text("pick"), "to": .text(to)])
        case .lead: return .record(["do": .text("lead")])
        case .back: return .record(["do": .text("back")])
        case .launch: return .record(["do": .text("launch")])
        case .close(let via): return .record(["do": .text("close"), "via": .text(via)])
        case .enter(let entrance, let args, let cold):
            return .record(["do": .text("enter"), "entrance": .text(entrance), "args": .record(args), "cold": .truth(cold)])
        case .fact(let fact, let value): return .record(["do": .text("fact"), "fact": .text(fact), "value": value])
        case .width(let to): return .record(["do": .text("width"), "to": .text(to)])
        }
    }

    static func event(_ part: Part) -> Event {
        let to = part.text("to") ?? ""
        switch part.text("do") {
        case "leg": return .leg(part.text("leg") ?? "", item: part["item"] == .nothing ? nil : part["item"], fields: part["fields"]?.record)
        case "tab": return .tab(to)
        case "pick": return .pick(to)
        case "lead": return .lead
        case "back": return .back
        case "close": return .close(part.text("via") ?? "")
        case "enter": return .enter(part.text("entrance") ?? "", args: part["args"]?.record ?? [:], cold: part.flag("cold"))
        case "fact": return .fact(part.text("fact") ?? "", part["value"] ?? .nothing)
        case "width": return .width(to)
        default: return .launch
        }
    }

    static func data(_ state: State) -> Value {
        return .record([
            "base": data(state.base), "layers": .list(state.layers.map { .record(["at": .text($0.at), "content": data($0.content)]) }),
            "facts": .record(state.facts), "width": .text(state.width),
            "waiting": state.waiting.map { .record(["entrance": .text($0.entrance), "args": .record($0.args)]) } ?? .nothing,
            "held": state.held.map { .record(["event": data($0.event), "depth": .number(Double($0.depth))]) } ?? .nothing,
        ])
    }

    static func state(_ part: Part) -> State {
        var out = State(base: node(part.part("base") ?? Part()), layers: [], facts: part["facts"]?.record ?? [:], width: part.text("width") ?? "narrow")
        out.layers = part.parts("layers").map { Layer(at: $0.text("at") ?? "", content: node($0.part("content") ?? Part())) }
        if let waiting = part.part("waiting") { out.waiting = Waiting(entrance: waiting.text("entrance") ?? "", args: waiting["args"]?.record ?? [:]) }
        if let held = part.part("held"), case .number(let depth)? = held["depth"] { out.held = Held(event: event(held.part("event") ?? Part()), depth: Int(depth)) }
        return out
    }
}

/// Addresses by patterns such as `/hives/{hiveId}`: one variable a segment, and the last may take the rest of the path.
public enum Patterns {
    static func segments(_ path: String) -> [String] {
        var text = path
        if let scheme = text.range(of: "^[A-Za-z][A-Za-z0-9+.-]*://[^/]*", options: .regularExpression) { text.removeSubrange(scheme) }
        if text.hasPrefix("/") { text.removeFirst() }
        if text.hasSuffix("/") { text.removeLast() }
        return text.components(separatedBy: "/")
    }

    /// A segment with a variable: what stands before it, its name, what stands after it, and whether it takes the rest.
    static func hole(_ segment: String) -> (before: String, name: String, after: String, rest: Bool)? {
        guard let open = segment.firstIndex(of: "{"), let close = segment[open...].firstIndex(of: "}") else { return nil }
        let inside = String(segment[segment.index(after: open)..<close])
        let rest = inside.hasPrefix("+")
        return (String(segment[..<open]), rest ? String(inside.dropFirst()) : inside, String(segment[segment.index(after: close)...]), rest)
    }

    /// The variables that a pattern finds in an address, decoded; nil where it does not match.
    public static func match(_ pattern: String, _ address: String) -> [String: String]? {
        let wanted = segments(pattern)
        let found = segments(String(address.prefix { $0 != "?" && $0 != "#" }))
        var out: [String: String] = [:]
        for (i, segment) in wanted.enumerated() {
            let part = hole(segment)
            let rest = part?.rest == true && i == wanted.count - 1
            let text = rest ? found.dropFirst(i).joined(separator: "/") : i < found.count ? found[i] : ""
            if text == "" { return nil }
            guard let (before, name, after, _) = part else {
                if text.removingPercentEncoding != segment.removingPercentEncoding { return nil }
                continue
            }
            if text.count <= before.count + after.count || !text.hasPrefix(before) || !text.hasSuffix(after) { return nil }
            guard let value = String(text.dropFirst(before.count).dropLast(after.count)).removingPercentEncoding else { return nil }
            out[name] = value
            if rest { return out }
        }
        return wanted.count == found.count ? out : nil
    }

    /// Whether a pattern goes before another: fixed text before a variable, a variable before the rest of the path.
    static func goesBefore(_ a: String, _ b: String) -> Bool {
        let (x, y) = (segments(a).map { hole($0).map { $0.rest ? 2 : 1 } ?? 0 }, segments(b).map { hole($0).map { $0.rest ? 2 : 1 } ?? 0 })
        for i in 0..<max(x.count, y.count) {
            let (one, other) = (i < x.count ? x[i] : 0, i < y.count ? y[i] : 0)
            if one != other { return one < other }
        }
        return false
    }

    /// The address of a pattern with its variables filled in; nil where one has no value.
    public static func build(_ pattern: String, _ values: Args) -> String? {
        var out: [String] = []
        for segment in segments(pattern) {
            guard let (before, name, after, rest) = hole(segment) else { out.append(segment); continue }
            guard let text = values[name]?.asText, text != "" else { return nil }
            var allowed = CharacterSet(charactersIn: "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_.~")
            if rest { allowed.insert("/") }
            out.append(before + (text.addingPercentEncoding(withAllowedCharacters: allowed) ?? "") + after)
        }
        return "/" + out.joined(separator: "/")
    }
}

/// A leg that is to be sent after some milliseconds, unless it is no longer due by then.
public struct Due: Hashable {
    public let leg: String
    public let ms: Int
}

/// Keeps a state, carries out events, and tells who listens. Not for several threads at once.
open class Core {
    private let design: Part
    private let hash: String
    private let guards: [String: () -> Value]
    private let engine: Engine
    private var listeners: [Int: (State) -> Void] = [:]
    private var listened = 0
    private let log: ((String) -> Void)?
    private let run: String
    public private(set) var state: State

    init(_ design: Part, hash: String, guards: [String: () -> Value], stored: Args, rows: @escaping (String) -> [Args]?, log: ((String) -> Void)?, run: String) {
        self.design = design
        self.hash = hash
        self.guards = guards
        let moving = Engine(design, rows: rows)
        self.engine = moving
        self.state = moving.launch(stored: stored)
        self.log = log
        self.run = run
        note(.launch, launched: true)
        askGuards()
    }

    /// The state in one line.
    public var line: String { return engine.line(state) }
    /// What the control at the start of the bar is: back, up, menu, idle or none.
    public var lead: String { return engine.leadOf(state) }
    /// The facts that outlive the app: to be stored, and given again when it starts.
    public var stored: Args { return state.facts.filter { design.part("facts")?.part($0.key)?.flag("persists") == true } }
    /// Legs that the app is to send after a while: start a clock for each that is new, and stop those that are no longer here.
    public var due: [Due] { return engine.due(state).map { Due(leg: $0.leg, ms: Int($0.ms)) } }

    /// Carries out an event; what guards say of the outside is asked first. `url` of the outcome is to be opened outside of the app.
    @discardableResult
    public func send(_ event: Event) -> Outcome {
        askGuards()
        let result = engine.step(state, event)
        if result.outcome == "moved" { become(result.state, event) } else { note(event) }
        return result
    }

    /// Why an event would do nothing now; nil where it would do something.
    public func why(_ event: Event) -> String? { return engine.step(state, event).why }

    /// Calls a function after each change; gives what ends that.
    @discardableResult
    public func listen(_ listener: @escaping (State) -> Void) -> () -> Void {
        listened += 1
        let id = listened
        listeners[id] = listener
        return { [weak self] in self?.listeners[id] = nil }
    }

    /// Comes in by an address, as a link does; nil where no screen and no way in has it.
    public func open(_ address: String, cold: Bool = false) -> Outcome? {
        var found: (id: String, pattern: String, args: [String: String])?
        for id in design.texts("ways") {
            guard let pattern = design.part("entrances")?.part(id)?.text("pattern"), let args = Patterns.match(pattern, address) else { continue }
            if let best = found, !Patterns.goesBefore(pattern, best.pattern) { continue }
            found = (id, pattern, args)
        }
        return found.map { send(.enter($0.id, args: $0.args.mapValues { .text($0) }, cold: cold)) }
    }

    /// The address of the screen that shows, if it has one.
    public var address: String? {
        let shown = state.current(state.top)
        let entrances = design.part("entrances")
        let ways = design.texts("ways").filter { entrances?.part($0)?.text("to") == shown.at && !$0.hasPrefix("~") }
        return (["~" + shown.at] + ways).compactMap { entrances?.part($0)?.text("pattern") }.compactMap { Patterns.build($0, shown.args) }.first
    }

    /// The state as text, for when the system ends the app.
    public func toJson() -> String {
        let data = try? JSONEncoder().encode(Value.record(["plan": .text(hash), "state": Kept.data(state)]))
        return data.flatMap { String(data: $0, encoding: .utf8) } ?? "{}"
    }

    /// Puts a state in place that was kept; false, and nothing changed, where it is of another version of the design or cannot be read.
    public func restore(_ json: String) -> Bool {
        let kept = Part(json: [json])
        guard kept.text("plan") == hash, let state = kept.part("state") else { return false }
        become(Kept.state(state), nil)
        return true
    }

    private func become(_ next: State, _ event: Event?) {
        state = next
        note(event)
        for listener in listeners.values { listener(next) }
    }

    private func askGuards() {
        for (fact, ask) in guards {
            let event = Event.fact(fact, ask())
            let result = engine.step(state, event)
            if result.outcome == "moved" { become(result.state, event) }
        }
    }

    /// Tells the log of an event and the state after it, without what was typed into fields; without an event the app was put back.
    private func note(_ event: Event?, launched: Bool = false) {
        guard let tell = log else { return }
        let shown = state.current(state.top)
        let now = ISO8601DateFormatter().string(from: Date())
        var entry: Args = ["run": .text(run), "at": .text(now), "shows": .text(shown.at), "args": .record(shown.args), "line": .text(line)]
        if let event = event {
            entry["event"] = .record((Kept.data(event).record ?? [:]).filter { $0.key != "fields" && $0.value != .nothing })
        } else {
            entry["restored"] = .truth(true)
        }
        if launched || event == nil { entry["facts"] = .record(state.facts) }
        if let data = try? JSONEncoder().encode(Value.record(entry)), let text = String(data: data, encoding: .utf8) { tell(text) }
    }
}
