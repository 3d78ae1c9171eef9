/** Values are texts, numbers (Double), truth values, and maps and lists of these; null stands for what is not there. */
typealias Args = Map<String, Any?>
/** A part of the plan: places, legs, ways in and facts as the design says them, moves as stack operations. */
typealias Data = Map<String, Any?>

@Suppress("UNCHECKED_CAST")
private fun Data.part(name: String): Data? = this[name] as? Data
@Suppress("UNCHECKED_CAST")
private fun Data.parts(name: String): List<Data> = this[name] as? List<Data> ?: listOf()
@Suppress("UNCHECKED_CAST")
private fun Data.texts(name: String): List<String> = this[name] as? List<String> ?: listOf()
private fun Data.text(name: String): String? = this[name] as? String
private fun Data.flag(name: String): Boolean = this[name] == true

/** Reads the plan, which is JSON. */
@Suppress("UNCHECKED_CAST")
fun readPlan(lines: List<String>): Data = Reader(lines.joinToString("")).value() as Data

private class Reader(private val text: String) {
    private var at = 0
    fun value(): Any? = when (text[at]) {
        '{' -> mutableMapOf<String, Any?>().also { map -> each('}') { val name = string(); at += 1; map[name] = value() } }
        '[' -> mutableListOf<Any?>().also { list -> each(']') { list.add(value()) } }
        '"' -> string()
        't' -> true.also { at += 4 }
        'f' -> false.also { at += 5 }
        'n' -> null.also { at += 4 }
        else -> { val from = at; while (at < text.length && text[at] in "+-.eE0123456789") at += 1; text.substring(from, at).toDouble() }
    }
    private fun each(end: Char, read: () -> Unit) {
        at += 1
        while (text[at] != end) { read(); if (text[at] == ',') at += 1 }
        at += 1
    }
    private fun string(): String {
        val out = StringBuilder()
        at += 1
        while (text[at] != '"') {
            var c = text[at++]
            if (c == '\\') {
                c = text[at++]
                if (c == 'u') { out.append(text.substring(at, at + 4).toInt(16).toChar()); at += 4; continue }
                c = when (c) { 'n' -> '\n'; 't' -> '\t'; 'r' -> '\r'; 'b' -> '\b'; 'f' -> '\u000c'; else -> c }
            }
            out.append(c)
        }
        at += 1
        return out.toString()
    }
}

sealed class Event {
    data class UseLeg(val leg: String, val item: Any? = null, val fields: Args? = null) : Event()
    data class Tab(val to: String) : Event()
    data class Pick(val to: String) : Event()
    object Lead : Event()
    object Back : Event()
    object Launch : Event()
    data class Close(val via: String) : Event()
    data class Enter(val entrance: String, val args: Args = mapOf(), val cold: Boolean = false) : Event()
    data class SetFact(val fact: String, val value: Any) : Event()
    data class Width(val to: String) : Event()
}

sealed class Node {
    abstract val at: String
}
/** Two screens shown are the same only if their `made` is one object: a screen may be shown twice, and keeps it when it is handed something. */
class Shown(override val at: String, val args: Args, val spent: List<String> = listOf(), val made: Any = Any()) : Node()
data class Stack(override val at: String, val items: List<Node>) : Node()
/** A tab set, or a drawer where `drawer` says so. */
data class Lanes(
    override val at: String,
    val drawer: Boolean,
    val active: String,
    val lanes: Map<String, Node>,
    val visited: List<String>,
    val open: Boolean = false
) : Node()

data class Layer(val at: String, val content: Node)
data class Waiting(val entrance: String, val args: Args)
data class Held(val event: Event, val depth: Int)
/** Where the app is. Branch 0 is the base, branch n the content of layer n. */
data class State(
    val base: Node,
    val layers: List<Layer>,
    val facts: Args,
    val width: String,
    val waiting: Waiting? = null,
    val held: Held? = null
) {
    val top: Int get() = layers.size
    fun branch(n: Int): Node = if (n == 0) base else layers[n - 1].content
    fun path(n: Int): List<Node> = pathOf(branch(n))
    fun current(n: Int = top): Shown = shownIn(branch(n))
    fun withLayers(count: Int): State = if (count >= layers.size) this else copy(layers = layers.take(count))
    fun withBranch(n: Int, node: Node): State =
        if (n == 0) copy(base = node) else copy(layers = layers.mapIndexed { i, layer -> if (i == n - 1) layer.copy(content = node) else layer })
    fun update(n: Int, depth: Int, node: Node): State = withBranch(n, replaceOn(path(n), depth, node))
    fun nearestStack(n: Int): Int = path(n).indexOfLast { it is Stack }
}

fun pathOf(node: Node): List<Node> = generateSequence(node) {
    when (it) {
        is Shown -> null
        is Stack -> it.items.lastOrNull()
        is Lanes -> it.lanes[it.active]
    }
}.toList()
fun shownIn(node: Node): Shown = pathOf(node).last() as? Shown ?: Shown(node.at, mapOf())
private fun replaceOn(path: List<Node>, depth: Int, node: Node): Node = path.take(depth).foldRight(node) { outer, inner ->
    when (outer) {
        is Shown -> inner
        is Stack -> outer.copy(items = outer.items.dropLast(1) + inner)
        is Lanes -> outer.copy(lanes = outer.lanes + (outer.active to inner))
    }
}
private fun isOpen(node: Node): Boolean = node is Lanes && node.drawer && node.open
private fun closed(node: Node): Node = if (node is Lanes && node.open) node.copy(open = false) else node

/** What a move comes to before it is made. */
private sealed class Change {
    data class Moved(val state: State) : Change()
    data class Refused(val why: String) : Change()
    data class Ignored(val why: String) : Change()
    class Left(val url: String?) : Change()
}
private val nothingToDo = Change.Ignored("nothing-to-do")
private val noControl = Change.Ignored("no-such-control")

/** `outcome` is moved, ignored, refused or left; unless it is moved, the state is the one given. `url` is what opens outside of the app. */
class Outcome(val outcome: String, val state: State, val why: String? = null, val url: String? = null)

/** Moves through a design: pure functions from a state and an event to a state. `rows` gives the app's own rows of a type. */
class Engine(private val plan: Data, private val rows: (String) -> List<Args>? = { null }) {
    private val legs: Data = plan.part("legs") ?: mapOf()
    private val starting: Map<String, List<String>> = legs.keys.groupBy { leg(it).text("from") + " " + leg(it).text("on") }

    private fun screen(id: String): Data = plan.part("screens")?.part(id) ?: mapOf()
    private fun container(id: String?): Data = plan.part("containers")?.part(id ?: "") ?: mapOf()
    private fun leg(id: String): Data = legs.part(id) ?: mapOf()
    private fun rowsOf(type: String): List<Args> = rows(type) ?: plan.part("types")?.part(type)?.parts("rows") ?: listOf()

    /** The state at launch, with facts as they were stored. */
    fun launch(stored: Args = mapOf()): State {
        val facts = factsAnew(null) + stored.filter { (id, value) -> plan.part("facts")?.part(id)?.let { it.flag("persists") && isOne(it, value) } == true }
        return arriving(null, State(make(plan["launch"]), listOf(), facts, "narrow")).let { it.second ?: it.first }
    }

    /** Legs on `after` that are in reach and can fire, with their milliseconds. */
    fun due(state: State): List<Pair<String, Double>> = legs.keys.filter { leg(it).text("on") == "after" }.mapNotNull { id ->
        val fires = inReach(state).any { n -> state.current(n).let { isSource(state, n, leg(id).text("from") ?: "") && canFire(id, it, valuesOn(state, it)) } }
        if (fires) Pair(id, leg(id)["ms"] as? Double ?: 0.0) else null
    }

    private fun isOne(fact: Data, value: Any?): Boolean = if (fact["values"] != null) value in fact.texts("values") else value is Boolean

    fun step(state: State, event: Event): Outcome {
        val change = attempt(state, event)
        return when (change) {
            is Change.Left -> Outcome("left", state, null, change.url)
            is Change.Ignored -> Outcome("ignored", state, change.why)
            is Change.Refused -> Outcome("refused", state, change.why)
            is Change.Moved -> {
                val settled = arriving(state, change.state).second ?: return Outcome("refused", state, "redirect-loop")
                val held = settled.held
                Outcome("moved", if (held != null && settled.top <= held.depth) settled.copy(held = null) else settled)
            }
        }
    }

    /** The state in one line. */
    fun line(state: State, openMarks: Boolean = true): String {
        fun of(node: Node): String = when (node) {
            is Shown -> node.at
            is Stack -> node.items.joinToString(",", node.at + "[", "]") { of(it) }
            is Lanes -> {
                val members = container(node.at).texts("members")
                val lanes = members.filter { it in node.lanes } + node.lanes.keys.filter { it !in members }
                val inside = lanes.joinToString(",") { (if (it == node.active) "*" else "") + of(node.lanes.getValue(it)) }
                node.at + "{" + inside + "}" + (if (openMarks && isOpen(node)) "!" else "")
            }
        }
        return (listOf(of(state.base)) + state.layers.map { it.at + "(" + of(it.content) + ")" }).joinToString(" + ")
    }

    // Making places

    @Suppress("UNCHECKED_CAST")
    private fun make(template: Any?, args: Args = mapOf()): Node {
        if (template is String) return Shown(template, ownArguments(template, args))
        val data = template as Data
        val stack = data.text("stack")
        if (stack != null) return Stack(stack, (data["items"] as List<Any?>).map { make(it, args) })
        val active = data.text("active") ?: ""
        return Lanes(data.text("lanes") ?: "", data.text("kind") == "drawer", active, mapOf(active to make(data["shows"], args)), listOf(active))
    }

    private fun makeLane(id: String): Node = make(plan.part("lanes")?.get(id) ?: id)

    /** The arguments that a screen declares, defaults filled in; always a map of their own. */
    private fun ownArguments(id: String, args: Args): Args {
        val own = mutableMapOf<String, Any?>()
        for (param in screen(id).parts("params")) {
            val name = param.text("name") ?: continue
            val value = if (name in args) args[name] else param["default"]
            if (value != null) own[name] = value
        }
        return own
    }

    private fun rebuilt(state: State, route: Data, args: Args): State {
        val modal = route.text("over") ?: return state.copy(base = make(route["base"], args), layers = listOf())
        return state.copy(base = make(plan["launch"]), layers = listOf(Layer(modal, make(route["shows"], args))))
    }

    // Lanes and Back

    private fun isPinned(drawer: String, width: String): Boolean = width in container(drawer).texts("pinnedAt")

    private fun switchTo(node: Lanes, id: String, lane: Node): Lanes {
        var lanes = node.lanes + (id to lane)
        if (node.active != id && container(node.at)["keeps"] == false) lanes = lanes - node.active
        return node.copy(active = id, lanes = lanes, visited = node.visited.filter { it != id } + id, open = false)
    }

    private fun select(node: Lanes, id: String, fresh: Boolean = false): Lanes =
        switchTo(node, id, (if (fresh) null else node.lanes[id]) ?: makeLane(id))

    /** A state in which a container stands on the path of a branch. */
    private class Focus(val state: State, val branch: Int, val depth: Int) {
        val node: Node? get() = state.path(branch).getOrNull(depth)
        fun put(node: Node): Focus = Focus(state.update(branch, depth, node), branch, depth)
    }

    private fun activate(state: State, id: String): Focus? {
        for (n in state.top downTo 0) {
            val found = bringUp(state.branch(n), id, listOf()) ?: continue
            return Focus(state.withLayers(n).withBranch(n, found), n, pathOf(found).indexOfFirst { it.at == id && it !is Shown })
        }
        return null
    }

    private fun bringUp(node: Node, id: String, around: List<String>): Node? {
        if (node is Shown || node.at in around) return null
        if (node.at == id) return node
        val within = around + node.at
        if (node is Stack) {
            for (i in node.items.indices.reversed()) return node.copy(items = node.items.take(i) + (bringUp(node.items[i], id, within) ?: continue))
            return null
        }
        node as Lanes
        for (lane in (listOf(node.active) + container(node.at).texts("members") + node.lanes.keys).distinct()) {
            val content = node.lanes[lane] ?: if (id in container(lane).texts("holds")) makeLane(lane) else continue
            return switchTo(node, lane, bringUp(content, id, within) ?: continue)
        }
        return null
    }

    private fun closesBy(id: String, way: String): Boolean = way in container(id).texts("closeOn")

    private fun goBack(state: State, n: Int): Change {
        val nodes = state.path(n)
        val open = nodes.indexOfLast { isOpen(it) }
        if (open >= 0) return if (closesBy(nodes[open].at, "back")) Change.Moved(state.update(n, open, closed(nodes[open]))) else nothingToDo
        for (depth in nodes.indices.reversed()) return Change.Moved(state.update(n, depth, backIn(nodes[depth]) ?: continue))
        if (n == 0) return Change.Left(null)
        return if (closesBy(state.layers[n - 1].at, "back")) Change.Moved(state.withLayers(n - 1)) else nothingToDo
    }

    private fun backIn(node: Node): Node? {
        if (node is Stack) return if (node.items.size > 1) node.copy(items = node.items.dropLast(1)) else null
        if (node !is Lanes) return null
        val start = container(node.at).text("start") ?: ""
        if (container(node.at).text("onBack") == "start") return if (node.active == start) null else select(node, start)
        if (container(node.at).text("onBack") != "previous") return null
        val visited = node.visited.filter { it != node.active }
        return select(node, visited.lastOrNull() ?: return null).copy(visited = visited)
    }

    // Stack operations

    /** Runs the operations of a move one after another; `before` is the state that it began in. */
    private fun run(before: State, start: State, n: Int, operations: List<Data>, args: Args): Change {
        var state = start
        var on: Focus? = null
        var quiet = false
        fun settled(next: State, still: Boolean): Change = if (still && line(next) == line(before)) nothingToDo else Change.Moved(next)
        loop@ for ((i, op) in operations.withIndex()) {
            val at = on
            val to = op.text("to") ?: ""
            quiet = quiet || op.flag("quiet")
            when (op.text("op")) {
                "refuse" -> return Change.Refused(op.text("why") ?: "")
                "tidy" -> return tidied(state, n, op.text("away") == "one", operations.drop(i + 1), args)
                "stack" -> {
                    val branch = if (op.text("of") == "beneath" && n > 0) n - 1 else n
                    val from = state.withLayers(if (branch < n) branch else state.top)
                    val depth = from.nearestStack(branch)
                    if (depth < 0) return if (op["otherwise"] != null && branch == n) run(state, state, n, op.parts("otherwise"), args) else Change.Refused("no-stack")
                    on = Focus(from, branch, depth)
                }
                "bring" -> on = activate(state, op.text("up") ?: "")
                    ?: return if (op["otherwise"] != null) run(state, state, n, op.parts("otherwise"), args) else Change.Refused("not-showing")
                "unless" -> if (state.current(n).at == op.text("shows")) return nothingToDo
                "stay" -> {
                    val last = (at?.node as? Stack)?.items?.last() ?: continue@loop
                    val equal = last !is Shown || last.args == shownIn(make(op["make"], args)).args
                    if (last.at == op.text("on") && equal) return settled(state, true)
                }
                "pop" -> {
                    val matches = { node: Node -> to == (if (op.text("by") == "is") node.at else shownIn(node).at) }
                    val found = if (op["beneath"] != null) popBeneath(state, n, op.text("beneath") == "outwards", matches) else popTo(at, op.flag("pass"), args, matches)
                    if (found != null) return settled(found, op.flag("quiet"))
                }
                "drop" -> state = withoutTop(state, n)
                "push", "fill" -> {
                    val stack = at?.node as? Stack ?: return Change.Refused("no-stack")
                    if (isAround(op, state.path(at.branch).take(at.depth + 1))) return Change.Refused("inside-itself")
                    on = at.put(stack.copy(items = if (op.text("op") == "push") stack.items + make(op["make"], args) else (op["make"] as List<*>).map { make(it, args) }))
                }
                "replace" -> {
                    val nodes = state.path(n)
                    if (isAround(op, nodes.dropLast(1))) return Change.Refused("inside-itself")
                    state = state.update(n, nodes.size - 1, make(op["make"], args))
                }
                "select" -> on = at?.put(select(at.node as? Lanes ?: return Change.Refused("not-showing"), op.text("lane") ?: "", op.flag("fresh")))
                "rebuild" -> return Change.Moved(rebuilt(state, op.part("route") ?: mapOf(), args))
                "open" -> return open(state, n, op, args)
                "close" -> {
                    val layer = if (op["modal"] == null) n - 1 else state.layers.indexOfFirst { it.at == op["modal"] }
                    return if (layer < 0) nothingToDo else Change.Moved(state.withLayers(layer))
                }
                "menu" -> return menu(state, n, op)
                "back" -> return goBack(state, n)
                "up" -> return goUp(state, n)
            }
            if (on !== at) state = on?.state ?: state
        }
        return if (state === before) nothingToDo else settled(state, quiet)
    }

    private fun tidied(state: State, n: Int, one: Boolean, operations: List<Data>, args: Args): Change {
        val untidied = run(state, state, n, operations, args)
        val depth = state.nearestStack(n)
        val stack = state.path(n).getOrNull(depth) as? Stack
        if (untidied is Change.Refused || stack == null || stack.items.size < 2) return untidied
        val items = if (one) stack.items.dropLast(1) else stack.items.take(1)
        return run(state, state.update(n, depth, stack.copy(items = items)), n, operations, args)
    }

    private fun popTo(at: Focus?, pass: Boolean, args: Args, matches: (Node) -> Boolean): State? {
        val stack = at?.node as? Stack ?: return null
        val i = stack.items.indexOfLast(matches)
        if (i < 0) return null
        val nodes = pathOf(stack.items[i])
        val kept = if (pass) replaceOn(nodes, nodes.size - 1, shownIn(stack.items[i]).let { Shown(it.at, ownArguments(it.at, args), it.spent) }) else stack.items[i]
        return at.put(stack.copy(items = stack.items.take(i) + kept)).state
    }

    private fun popBeneath(state: State, n: Int, outwards: Boolean, matches: (Node) -> Boolean): State? {
        val nodes = state.path(n)
        for (depth in nodes.indices.reversed()) {
            val stack = nodes[depth] as? Stack ?: continue
            val i = stack.items.dropLast(1).indexOfLast(matches)
            if (i >= 0) return state.update(n, depth, stack.copy(items = stack.items.take(i + 1)))
            if (!outwards) return null
        }
        return null
    }

    private fun isAround(op: Data, around: List<Node>): Boolean = op.texts("holds").let { holds -> around.any { it !is Shown && it.at in holds } }

    private fun withoutTop(state: State, n: Int): State {
        val depth = state.nearestStack(n)
        val stack = state.path(n).getOrNull(depth) as? Stack
        return if (stack == null || stack.items.size < 2) state else state.update(n, depth, stack.copy(items = stack.items.dropLast(1)))
    }

    private fun goUp(state: State, n: Int): Change {
        val source = state.current(n)
        val program = if (n > 0) listOf(mapOf("op" to "drop")) else screen(source.at).parts("up")
        return run(state, state, n, program, source.args)
    }

    private fun withDrawersClosed(state: State, n: Int): State =
        state.path(n).indices.reversed().fold(state) { out, depth -> out.path(n)[depth].let { if (isOpen(it)) out.update(n, depth, closed(it)) else out } }

    private fun open(state: State, n: Int, op: Data, args: Args): Change {
        val before = withDrawersClosed(state, n)
        val modal = op.text("modal") ?: ""
        val already = state.layers.indexOfFirst { it.at == modal }
        if (already >= 0) return if (already == state.top - 1) nothingToDo else Change.Moved(before.withLayers(already + 1))
        val rest = if (op.flag("instead")) before.layers.dropLast(1) else before.layers
        return Change.Moved(before.copy(layers = rest + Layer(modal, make(op["make"], args))))
    }

    private fun menu(state: State, n: Int, op: Data): Change {
        val nodes = state.path(n)
        val named = op.text("drawer")
        val depth = if (named == null) nodes.indexOfLast { it is Lanes && it.drawer } else nodes.indexOfFirst { it is Lanes && it.drawer && it.at == named }
        val node = nodes.getOrNull(depth) as? Lanes ?: return nothingToDo
        val wanted = op["open"] as? Boolean ?: !node.open
        return if (isPinned(node.at, state.width) || wanted == node.open) nothingToDo else Change.Moved(state.update(n, depth, node.copy(open = wanted)))
    }

    // Expressions

    private fun value(tree: Any?, v: Args): Any? {
        val parts = tree as List<*>
        val part = { i: Int -> value(parts[i], v) }
        return when (val op = parts[0]) {
            "value" -> parts[1]
            "name" -> v[parts[1] as String]
            "member" -> (part(1) as? Map<*, *>)?.get(parts[2])
            "has" -> part(1) != null
            "!" -> part(1)?.let { it != true }
            "negative" -> part(1)?.let { -(it as Double) }
            "&&", "||" -> {
                val decides = op == "||"
                val first = part(1)
                val second = if (first == decides) decides else part(2)
                if (first == decides || second == decides) decides else if (first == null || second == null) null else !decides
            }
            "?:" -> part(1)?.let { if (it == true) part(2) else part(3) }
            else -> operate(op as String, part(1) ?: return null, part(2) ?: return null)
        }
    }

    private fun operate(op: String, a: Any, b: Any): Any {
        if (op == "==") return a == b
        if (op == "!=") return a != b
        if (op == "+") return if (a is Double && b is Double) a + b else text(a) + text(b)
        val order = if (a is Double && b is Double) a.compareTo(b) else text(a).compareTo(text(b))
        return when (op) { "<" -> order < 0; "<=" -> order <= 0; ">" -> order > 0; else -> order >= 0 }
    }

    private fun valuesOn(state: State, shown: Shown, item: Args? = null, fields: Args? = null): Args = mapOf(
        "fact" to state.facts, "width" to state.width, "param" to shown.args, "item" to item, "field" to fields,
        "next" to rowBeside(shown, 1), "prev" to rowBeside(shown, -1)
    )

    private fun rowBeside(shown: Shown, by: Int): Args? {
        val pages = screen(shown.at).part("pages") ?: return null
        val type = pages.text("over") ?: return null
        val order = pages.text("order")
        val all = if (order == null) rowsOf(type) else rowsOf(type).sortedWith(Comparator { a, b ->
            val (x, y) = Pair(a[order], b[order])
            if (x is Double && y is Double) x.compareTo(y) else text(x).compareTo(text(y))
        })
        val key = plan.part("types")?.part(type)?.text("key") ?: return null
        val wanted = shown.args[pages.text("by") ?: ""]
        val at = all.indexOfFirst { it[key] == wanted || it == wanted }
        return if (at < 0) null else all.getOrNull(at + by)
    }

    // Legs

    private fun inReach(state: State): List<Int> {
        var last = state.top
        while (last > 0 && container(state.layers[last - 1].at)["blocks"] == false) last -= 1
        return (state.top downTo last).toList()
    }

    private fun isSource(state: State, n: Int, place: String, drawersClosed: Boolean = false): Boolean {
        val nodes = state.path(n)
        val found = nodes.lastOrNull { it.at == place }
        if (!drawersClosed && nodes.any { isOpen(it) }) return found != null && isOpen(found)
        if (found == null) return n > 0 && state.layers[n - 1].at == place
        return !(found is Lanes && found.drawer) || isPinned(place, state.width)
    }

    private fun canFire(id: String, screen: Shown, v: Args, by: String? = null): Boolean =
        isReady(id, screen, v) && leg(id).texts("earlier").none { answers(it, by) && isReady(it, screen, v) }

    private fun answers(id: String, by: String?): Boolean = by == null || leg(id)["by"] == null || by in leg(id).texts("by")

    private fun isReady(id: String, screen: Shown, v: Args): Boolean {
        val leg = leg(id)
        if (leg.flag("never") || (leg.text("on") == "after" && id in screen.spent) || screen.at in leg.texts("except")) return false
        return listOf("when", "shown", "enabled").all { leg[it] == null || value(leg[it], v) == true }
    }

    private fun fire(state: State, n: Int, id: String, v: Args): Change {
        val leg = leg(id)
        val drawer = if (leg.flag("keepsDrawer")) -1 else state.path(n).indexOfFirst { isOpen(it) && it.at == leg.text("from") }
        var before = if (drawer < 0) state else state.update(n, drawer, closed(state.path(n)[drawer]))
        if (leg.text("on") == "after") before = before.update(n, before.path(n).size - 1, before.current(n).let { Shown(it.at, it.args, it.spent + id, it.made) })
        val facts = factsAfter(leg, state, v)
        val resumed = if (leg.flag("resumes")) resume(before, facts ?: state.facts) else null
        val move = leg.parts("move")
        val first = move.firstOrNull()?.text("op")
        if (resumed == null && first == "refuse") return Change.Refused(move[0].text("why") ?: "")
        val args = argumentsOf(leg, v)
        val given = resultsOf(leg, v)
        if (facts == null || (resumed == null && (args == null || given == null))) return Change.Refused("no-value")
        val sets = facts != state.facts
        val change = resumed ?: when (first) {
            null -> if (sets) Change.Moved(before) else nothingToDo
            "proceed" -> proceed(before)
            "leave" -> Change.Left(move[0].text("url"))
            else -> run(before, before, n, move, args ?: mapOf())
        }
        if (change is Change.Moved) {
            val handed = if (resumed == null && wentBack(before, n, move)) withHanded(change.state, given ?: mapOf()) else change.state
            return Change.Moved(if (sets) handed.copy(facts = facts) else handed)
        }
        return if (change is Change.Ignored && drawer >= 0) Change.Moved(before) else change
    }

    private fun argumentsOf(leg: Data, v: Args): Args? {
        val args = mutableMapOf<String, Any?>()
        for (passed in leg.parts("pass")) {
            val value = value(passed["value"], v)
            if (value != null) args[passed.text("name") ?: ""] = value else if (passed.flag("required")) return null
        }
        return args
    }

    /** What a leg hands back; null where some of it has no value. */
    private fun resultsOf(leg: Data, v: Args): Args? {
        val out = mutableMapOf<String, Any?>()
        for (handed in leg.parts("give")) out[handed.text("name") ?: ""] = value(handed["value"], v) ?: return null
        return out
    }

    /** Whether a move that was made went back to something that stood there before. */
    private fun wentBack(before: State, n: Int, move: List<Data>): Boolean = when (move.firstOrNull()?.text("op")) {
        "close", "back" -> true
        "unless" -> run(before, before, n, move.take(2), mapOf()) is Change.Moved
        else -> false
    }

    /** The state with what is handed back given to the screen that shows: what it declares of it. */
    private fun withHanded(state: State, given: Args): State {
        val screen = state.current()
        if (screen(screen.at).parts("params").none { it.text("name") in given }) return state
        val n = state.top
        return state.update(n, state.path(n).size - 1, Shown(screen.at, ownArguments(screen.at, screen.args + given), screen.spent, screen.made))
    }

    private fun factsAfter(leg: Data, state: State, v: Args): Args? {
        val facts = state.facts.toMutableMap()
        for (set in leg.parts("set")) {
            val id = set.text("fact") ?: ""
            val value = value(set["value"], v) ?: return null
            val fact = plan.part("facts")?.part(id)
            if (fact?.get("values") != null && value !in fact.texts("values")) return null
            facts[id] = value
        }
        return facts
    }

    private fun proceed(state: State): Change {
        val held = state.held ?: return nothingToDo
        val beneath = state.withLayers(held.depth).copy(held = null)
        val change = unasked(beneath, held.event, true)
        return if (change is Change.Ignored) Change.Moved(beneath) else change
    }

    /** Arrive legs fire until none can: the state before the first of them, and what they lead to; null where they go on without end. */
    private fun arriving(before: State?, start: State): Pair<State, State?> {
        var state = start
        var last = before
        for (count in 0..32) {
            if (last != null && before != null && state.top < last.top && state.top <= before.top) {
                val (was, now) = Pair(before.current(state.top), state.current())
                if (was.at == now.at && was.made === now.made) return Pair(start, state)
            }
            val screen = state.current()
            if (!isSource(state, state.top, screen.at)) return Pair(start, state)
            val v = valuesOn(state, screen)
            val id = starting[screen.at + " arrive"]?.firstOrNull { canFire(it, screen, v) } ?: return Pair(start, state)
            val change = fire(state, state.top, id, v) as? Change.Moved ?: return Pair(start, state)
            if (count == 32) return Pair(start, null)
            last = state
            state = change.state
        }
        return Pair(start, null)
    }

    // Events

    private fun attempt(state: State, event: Event): Change {
        if (event is Event.UseLeg) return useLeg(state, event)
        val tried = unasked(state, event, false)
        val by = when (event) {
            is Event.Back -> "back"
            is Event.Lead -> "lead"
            is Event.Tab -> "tab"
            is Event.Pick -> "pick"
            is Event.Close -> "close"
            is Event.Enter -> if (event.cold) return tried else "link"
            else -> return tried
        }
        if (!(tried is Change.Left || (tried is Change.Moved && line(tried.state, false) != line(state, false)))) return tried
        val n = controlOf(state, event, false)?.branch ?: state.top
        val places = state.path(n).map { it.at }.reversed() + (if (n > 0) listOf(state.layers[n - 1].at) else listOf())
        val screen = state.current(n)
        val v = valuesOn(state, screen)
        val asked = places.filter { isSource(state, n, it, true) }.flatMap { starting["$it depart"] ?: listOf() }
            .firstOrNull { answers(it, by) && canFire(it, screen, v, by) } ?: return tried
        val instead = fire(state, n, asked, v)
        if (leg(asked)["move"] == null) return if (instead is Change.Moved && tried is Change.Moved) Change.Moved(tried.state.copy(facts = instead.state.facts)) else tried
        if (instead is Change.Left) return instead
        if (instead !is Change.Moved) return tried
        return if (instead.state.top <= state.top) instead else Change.Moved(instead.state.copy(held = Held(event, state.top)))
    }

    private fun useLeg(state: State, event: Event.UseLeg): Change {
        val leg = legs.part(event.leg) ?: return noControl
        if (leg.text("on") == "arrive" || leg.text("on") == "depart") return noControl
        val row = event.item?.let { rowOf(leg, it) }
        if (event.item != null && row == null && leg["rows"] != null) return noControl
        for (n in inReach(state)) {
            val screen = state.current(n)
            val v = valuesOn(state, screen, row, event.fields)
            if (isSource(state, n, leg.text("from") ?: "") && canFire(event.leg, screen, v)) return fire(state, n, event.leg, v)
        }
        return noControl
    }

    @Suppress("UNCHECKED_CAST")
    private fun rowOf(leg: Data, item: Any): Args? {
        if (item is Map<*, *>) return item as Args
        val type = leg.text("rows") ?: return null
        val key = plan.part("types")?.part(type)?.text("key") ?: return null
        return rowsOf(type).let { all -> all.firstOrNull { it[key] == item || text(it[key]) == item } ?: (item as? Double)?.let { all.getOrNull(it.toInt()) } }
    }

    private fun unasked(state: State, event: Event, held: Boolean): Change = when (event) {
        is Event.UseLeg -> useLeg(state, event)
        is Event.Tab -> choose(state, controlOf(state, event, held), event.to)
        is Event.Pick -> choose(state, controlOf(state, event, held), event.to)
        is Event.Lead -> pressLead(state)
        is Event.Close -> closeBy(state, event.via)
        is Event.Back -> goBack(state, state.top)
        is Event.Enter -> enter(state, event)
        is Event.Launch -> Change.Moved(relaunched(state))
        is Event.SetFact -> setFact(state, event.fact, event.value)
        is Event.Width -> setWidth(state, event.to)
    }

    private fun controlOf(state: State, event: Event, held: Boolean): Focus? {
        val to = (event as? Event.Tab)?.to ?: (event as? Event.Pick)?.to ?: return null
        for (n in inReach(state)) {
            val nodes = state.path(n)
            val depth = nodes.indexOfLast { node ->
                node is Lanes && to in container(node.at).texts("members") &&
                    if (event is Event.Pick) node.drawer && (held || node.open || isPinned(node.at, state.width))
                    else !node.drawer && nodes.none { isOpen(it) } && !screen(shownIn(node).at).flag("coversTabs")
            }
            if (depth >= 0) return Focus(state, n, depth)
        }
        return null
    }

    private fun choose(state: State, control: Focus?, to: String): Change {
        val node = control?.node as? Lanes ?: return noControl
        if (node.active != to) return Change.Moved(control.put(select(node, to)).state)
        if (node.drawer) return if (node.open) Change.Moved(control.put(closed(node)).state) else nothingToDo
        val lane = node.lanes[node.active] as? Stack
        if (container(node.at).text("chosenAgain") != "root" || lane == null || lane.items.size < 2) return nothingToDo
        return Change.Moved(control.put(node.copy(lanes = node.lanes + (node.active to lane.copy(items = lane.items.take(1))))).state)
    }

    /** What the control at the start of the bar is: back, up, menu, idle or none. */
    fun leadOf(state: State): String {
        val n = state.top
        val nodes = state.path(n).reversed()
        val around = nodes.drop(1).map { it.at } + (if (n > 0) listOf(state.layers[n - 1].at) else listOf())
        val bar = screen(nodes.first().at).part("bar") ?: around.mapNotNull { container(it).part("bar") }.firstOrNull() ?: mapOf("show" to true, "lead" to "auto")
        if (!bar.flag("show")) return "none"
        val canPop = (nodes.firstOrNull { it is Stack } as? Stack)?.items?.size ?: 0 > 1
        val up = n == 0 && screen(nodes.first().at)["up"] != null
        return when (bar.text("lead")) {
            "auto" -> if (canPop) "back" else if (up) "up" else "none"
            "back" -> if (canPop) "back" else "none"
            "up" -> if (n == 0) (if (up) "up" else "idle") else if (canPop) "back" else "idle"
            "menu" -> nodes.firstOrNull { it is Lanes && it.drawer }.let { if (it == null) "idle" else if (isPinned(it.at, state.width)) "none" else "menu" }
            else -> "none"
        }
    }

    private fun pressLead(state: State): Change {
        val n = state.top
        val lead = leadOf(state)
        val depth = state.path(n).indexOfLast { it is Lanes && it.drawer }
        val drawer = state.path(n).getOrNull(depth) as? Lanes
        if (state.path(n).any { isOpen(it) })
            return if (lead == "menu" && drawer != null && drawer.open && container(drawer.at)["over"] == false) Change.Moved(state.update(n, depth, closed(drawer))) else nothingToDo
        return when (lead) {
            "none" -> noControl
            "up" -> goUp(state, n)
            "menu" -> if (drawer != null) Change.Moved(state.update(n, depth, drawer.copy(open = true))) else nothingToDo
            "back" -> withoutTop(state, n).let { if (it === state) nothingToDo else Change.Moved(it) }
            else -> nothingToDo
        }
    }

    private fun closeBy(state: State, via: String): Change {
        if (via == "back") return noControl
        val n = state.top
        val nodes = state.path(n)
        val open = nodes.indexOfLast { isOpen(it) }
        if (open >= 0) return if (closesBy(nodes[open].at, via)) Change.Moved(state.update(n, open, closed(nodes[open]))) else noControl
        return if (n > 0 && closesBy(state.layers[n - 1].at, via)) Change.Moved(state.withLayers(n - 1)) else noControl
    }

    // Coming in

    /** Facts at a launch; after the first, those that persist or come from outside are kept. */
    private fun factsAnew(state: State?): Args = (plan.part("facts") ?: mapOf()).mapValues { (id, fact) ->
        @Suppress("UNCHECKED_CAST")
        (fact as Data).let { (if (it.flag("persists") || it.flag("outside")) state?.facts?.get(id) else null) ?: it["initial"] }
    }

    private fun relaunched(state: State): State = State(make(plan["launch"]), listOf(), factsAnew(state), state.width)

    private class Destination(val allowed: Boolean, val route: Data?, val args: Args)

    private fun destination(state: State, id: String, given: Args): Destination? {
        val entrance = plan.part("entrances")?.part(id) ?: return null
        val link = given.mapValues { text(it.value) }
        val v = mapOf("fact" to state.facts, "width" to state.width, "link" to link)
        val allowed = !entrance.flag("never") && (entrance["when"] == null || value(entrance["when"], v) == true)
        val args = mutableMapOf<String, Any?>()
        if (entrance["pass"] != null) for (passed in entrance.parts("pass")) value(passed["value"], v)?.let { args[passed.text("name") ?: ""] = it }
        else for (param in entrance.parts("takes")) (param.text("name") ?: "").let { name -> given[name]?.let { fromText(it, param.text("type")) }?.let { args[name] = it } }
        return Destination(allowed, entrance.part("route"), args)
    }

    private fun fromText(value: Any, type: String?): Any? = when {
        value !is String -> value
        type == "integer" -> if (Regex("[+-]?\\d+").matches(value)) value.toDouble() else null
        type == "number" -> value.trim().toDoubleOrNull()
        type == "boolean" -> if (value == "true") true else if (value == "false") false else null
        else -> value
    }

    private fun enter(state: State, event: Event.Enter): Change {
        val entrance = plan.part("entrances")?.part(event.entrance) ?: return noControl
        val start = if (event.cold) relaunched(state) else state
        val found = destination(start, event.entrance, event.args) ?: return noControl
        if (!found.allowed) {
            val otherwise = entrance.part("otherwise") ?: return if (event.cold) Change.Moved(start) else Change.Refused("not-allowed")
            val waiting = if (entrance.flag("resume")) start.copy(waiting = Waiting(event.entrance, event.args)) else start
            return Change.Moved(rebuilt(waiting, otherwise.part("route") ?: return Change.Refused("no-place"), mapOf()))
        }
        val route = found.route ?: return Change.Refused("no-place")
        val bare = withDrawersClosed(start.copy(layers = listOf()), 0)
        val depth = if (event.cold || !entrance.flag("onTop")) -1 else bare.nearestStack(0)
        val stack = bare.path(0).getOrNull(depth) as? Stack ?: return Change.Moved(rebuilt(start, route, found.args))
        return Change.Moved(bare.update(0, depth, stack.copy(items = stack.items + make(entrance["make"], found.args))))
    }

    private fun resume(state: State, facts: Args): Change? {
        val waiting = state.waiting ?: return null
        val found = destination(state.copy(facts = facts), waiting.entrance, waiting.args)
        if (found == null || !found.allowed) return null
        return Change.Moved(rebuilt(state.copy(waiting = null), found.route ?: return Change.Refused("no-place"), found.args))
    }

    private fun setFact(state: State, id: String, value: Any): Change {
        val fact = plan.part("facts")?.part(id) ?: return noControl
        if (!fact.flag("outside") || !isOne(fact, value)) return noControl
        return if (state.facts[id] == value) nothingToDo else Change.Moved(state.copy(facts = state.facts + (id to value)))
    }

    private fun setWidth(state: State, to: String): Change {
        if (state.width == to) return nothingToDo
        fun shut(node: Node): Node = when (node) {
            is Shown -> node
            is Stack -> node.copy(items = node.items.map { shut(it) })
            is Lanes -> closed(node.copy(lanes = node.lanes.mapValues { shut(it.value) }))
        }
        return Change.Moved(state.copy(width = to, base = shut(state.base), layers = state.layers.map { it.copy(content = shut(it.content)) }))
    }
}

/** A value as text, numbers without an empty fraction. */
fun text(value: Any?): String = when (value) {
    null -> ""
    is Double -> if (value == Math.floor(value) && Math.abs(value) < 1e15) value.toLong().toString() else value.toString()
    else -> value.toString()
}
