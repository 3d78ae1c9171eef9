/** Values are texts, numbers (Double), truth values, and maps and lists of these; null stands for what is not there. */
typealias Args = Map<String, Any?>
typealias Expression = (Values) -> Any?

/** What an expression may read. */
class Values(
    val fact: Args,
    val width: String,
    val param: Args,
    val item: Args? = null,
    val field: Args? = null,
    val link: Args? = null,
    private val rowBeside: (Int) -> Args? = { null }
) {
    val next: Args? get() = rowBeside(1)
    val prev: Args? get() = rowBeside(-1)
}

class Bar(val show: Boolean, val lead: String)
class Param(val name: String, val type: String, val default: Any? = null)
class Pages(val over: String, val by: String, val order: String? = null)

sealed class Place {
    abstract val bar: Bar?
}
class Screen(
    val params: List<Param> = listOf(),
    val up: String = "none",
    override val bar: Bar? = null,
    val pages: Pages? = null,
    val coversTabs: Boolean = false
) : Place()
class Container(
    val kind: String,
    val start: String,
    val members: List<String>,
    override val bar: Bar? = null,
    val onBack: String = "leave",
    val chosenAgain: String = "nothing",
    val keeps: Boolean = true,
    val over: Boolean = true,
    val pinnedFrom: String = "never",
    val full: Boolean = false,
    val blocks: Boolean = true,
    val closeOn: List<String> = listOf()
) : Place()

class Move(
    val kind: String,
    val to: String = "",
    val within: String? = null,
    val repeat: String = "copy",
    val tidy: String? = null,
    val orElse: String = "push",
    val show: String? = null,
    val instead: Boolean = false,
    val modal: String? = null,
    val fresh: Boolean = false,
    val drawer: String? = null,
    val action: String = "toggle"
)
class Given(val value: Expression, val required: Boolean)
class Leg(
    val from: String,
    val on: String,
    val key: String,
    val by: List<String>? = null,
    val never: Boolean = false,
    val condition: Expression? = null,
    val shown: Expression? = null,
    val enabled: Expression? = null,
    val except: List<String> = listOf(),
    val rows: String? = null,
    val move: Move? = null,
    val passes: Boolean = false,
    val pass: Map<String, Given> = mapOf(),
    val set: Map<String, Expression> = mapOf(),
    val resumes: Boolean = false
)
class Entrance(
    val to: String,
    val pattern: String? = null,
    val variables: List<String> = listOf(),
    val pass: Map<String, Expression>? = null,
    val condition: Expression? = null,
    val otherwise: String? = null,
    val resume: Boolean = false,
    val onTop: Boolean = false
)
class Fact(val initial: Any, val values: List<String>? = null, val outside: Boolean = false, val persists: Boolean = false)
class Rows(val key: String, val all: () -> List<Args>)

/** The design as data. */
class Plan(
    val root: String,
    val places: Map<String, Place>,
    val legs: Map<String, Leg>,
    val entrances: Map<String, Entrance>,
    val facts: Map<String, Fact>,
    val rows: Map<String, Rows>
) {
    val owners: Map<String, String> = mutableMapOf<String, String>().also { owners ->
        for ((id, place) in places) if (place is Container) for (member in place.members) if (member !in owners) owners[member] = id
    }
    private val alike: Map<String, List<String>> = legs.keys.groupBy { legs.getValue(it).key }
    private val starting: Map<String, List<String>> = legs.keys.groupBy { legs.getValue(it).from + " " + legs.getValue(it).on }

    fun screen(id: String): Screen? = places[id] as? Screen
    fun container(id: String?): Container? = places[id ?: ""] as? Container
    fun ownerOf(id: String): String? = owners[id]
    fun earlierThan(id: String): List<String> = alike.getValue(legs.getValue(id).key).takeWhile { it != id }
    fun legsFrom(place: String, on: String): List<String> = starting[place + " " + on] ?: listOf()
}

sealed class Event {
    data class UseLeg(val leg: String, val item: Any? = null, val fields: Args? = null, val args: Args? = null) : Event()
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
/** Two screens shown are the same only if they are one object: a screen may be shown twice. */
class Shown(override val at: String, val args: Args, val spent: List<String> = listOf()) : Node()
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
    fun withBranch(n: Int, node: Node): State =
        if (n == 0) copy(base = node) else copy(layers = layers.mapIndexed { i, layer -> if (i == n - 1) layer.copy(content = node) else layer })
    fun withLayers(count: Int): State = if (count >= layers.size) this else copy(layers = layers.take(count))
    fun path(n: Int): List<Node> = pathOf(branch(n))
    fun current(n: Int = top): Shown = shownIn(branch(n))
    fun update(n: Int, depth: Int, node: Node): State = withBranch(n, replaceOn(path(n), depth, node))
    fun nearest(n: Int, passes: (Node) -> Boolean): Int = path(n).indexOfLast(passes)
    fun nearestStack(n: Int): Pair<Stack, Int>? {
        val depth = nearest(n) { it is Stack }
        return if (depth < 0) null else Pair(path(n)[depth] as Stack, depth)
    }
}

fun childOf(node: Node): Node? = when (node) {
    is Shown -> null
    is Stack -> node.items.last()
    is Lanes -> node.lanes[node.active]
}
private fun withChild(node: Node, inner: Node): Node = when (node) {
    is Shown -> inner
    is Stack -> node.copy(items = node.items.dropLast(1) + inner)
    is Lanes -> node.copy(lanes = node.lanes + (node.active to inner))
}
fun pathOf(node: Node): List<Node> = generateSequence(node) { childOf(it) }.toList()
fun shownIn(node: Node): Shown = pathOf(node).last() as? Shown ?: Shown(node.at, mapOf())
fun replaceOn(path: List<Node>, depth: Int, node: Node): Node = path.take(depth).foldRight(node) { outer, inner -> withChild(outer, inner) }
fun closed(node: Lanes): Lanes = if (node.open) node.copy(open = false) else node
fun isOpen(node: Node): Boolean = node is Lanes && node.drawer && node.open

/** What a move comes to before it is made. */
sealed class Change {
    data class Moved(val state: State) : Change()
    data class Refused(val why: String) : Change()
    data class Ignored(val why: String) : Change()
    object Left : Change()
}
private val nothingToDo = Change.Ignored("nothing-to-do")
private val noControl = Change.Ignored("no-such-control")

/** `outcome` is moved, ignored, refused or left; unless it is moved, the state is the one given. */
class Outcome(val outcome: String, val state: State, val why: String? = null)

/** Moves through a design: pure functions from a state and an event to a state. */
class Engine(private val plan: Plan) {
    private val widths = listOf("narrow", "middle", "wide")

    fun launch(): State {
        val first = State(make(plan.root), listOf(), plan.facts.mapValues { it.value.initial }, "narrow")
        return arrive(null, first) ?: first
    }

    fun step(state: State, event: Event): Outcome {
        val change = attempt(state, event)
        return when (change) {
            is Change.Left -> Outcome("left", state)
            is Change.Ignored -> Outcome("ignored", state, change.why)
            is Change.Refused -> Outcome("refused", state, change.why)
            is Change.Moved -> {
                val settled = arrive(state, change.state) ?: return Outcome("refused", state, "redirect-loop")
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
                val members = plan.container(node.at)?.members ?: listOf()
                val lanes = members.filter { it in node.lanes } + node.lanes.keys.filter { it !in members }
                val inside = lanes.joinToString(",") { (if (it == node.active) "*" else "") + of(node.lanes.getValue(it)) }
                node.at + "{" + inside + "}" + (if (openMarks && isOpen(node)) "!" else "")
            }
        }
        return (listOf(of(state.base)) + state.layers.map { it.at + "(" + of(it.content) + ")" }).joinToString(" + ")
    }

    // Making places

    private fun make(id: String, args: Args = mapOf(), around: List<String> = listOf()): Node {
        val place = plan.places[id]
        if (place is Screen) return Shown(id, ownArguments(id, args))
        if (place !is Container || place.kind == "modal" || id in around) return Shown(id, mapOf())
        val start = make(place.start, args, around + id)
        if (place.kind == "stack") return Stack(id, listOf(start))
        return Lanes(id, place.kind == "drawer", place.start, mapOf(place.start to start), listOf(place.start))
    }

    private fun ownArguments(id: String, args: Args): Args {
        val own = mutableMapOf<String, Any?>()
        for (param in plan.screen(id)?.params ?: listOf()) {
            val value = if (param.name in args) args[param.name] else param.default
            if (value != null) own[param.name] = value
        }
        return own
    }

    private fun firstScreen(id: String, seen: List<String> = listOf()): String? {
        val place = plan.places[id]
        if (place == null || id in seen) return null
        return if (place is Container) firstScreen(place.start, seen + id) else id
    }

    private fun tree(id: String, seen: MutableSet<String> = mutableSetOf()): Set<String> {
        if (seen.add(id)) for (member in plan.container(id)?.members ?: listOf()) tree(member, seen)
        return seen
    }

    private fun upTarget(id: String): String? {
        val up = plan.screen(id)?.up ?: "none"
        if (up == "none") return null
        if (up != "auto") return up
        val owner = plan.container(plan.ownerOf(id))
        return if (owner != null && owner.kind == "stack" && owner.start != id) owner.start else null
    }

    private fun trail(id: String, args: Args): List<Node> {
        val ids = mutableListOf(id)
        var up = upTarget(id)
        while (up != null && up !in ids && up in plan.places && plan.ownerOf(up) == plan.ownerOf(id)) {
            ids.add(0, up)
            up = upTarget(up)
        }
        return ids.map { make(it, args) }
    }

    private fun rebuild(state: State, id: String, args: Args): Change {
        val place = plan.places[id] ?: return Change.Refused("no-place")
        val owners = mutableListOf<String>()
        var owner = plan.ownerOf(id)
        while (owner != null && owner !in owners) {
            owners.add(0, owner)
            if (plan.container(owner)?.kind == "modal" || owner == plan.root) break
            owner = plan.ownerOf(owner)
        }
        fun over(modal: String, content: Node) = Change.Moved(state.copy(base = make(plan.root), layers = listOf(Layer(modal, content))))
        if (place is Container && place.kind == "modal") return over(id, make(place.start, args))
        val outermost = owners.firstOrNull()
        if (outermost != null && plan.container(outermost)?.kind == "modal") return over(outermost, build(owners.drop(1), id, args))
        return Change.Moved(state.copy(base = build(owners, id, args), layers = listOf()))
    }

    private fun build(owners: List<String>, id: String, args: Args): Node {
        val at = owners.firstOrNull() ?: return make(id, args)
        val rest = owners.drop(1)
        val inner = rest.firstOrNull() ?: id
        val kind = plan.container(at)?.kind
        return when (kind) {
            "stack" -> Stack(at, if (rest.isEmpty()) trail(id, args) else listOf(build(rest, id, args)))
            "tabs", "drawer" -> Lanes(at, kind == "drawer", inner, mapOf(inner to build(rest, id, args)), listOf(inner))
            else -> build(rest, id, args)
        }
    }

    // Lanes and Back

    private fun isPinned(drawer: String, width: String): Boolean {
        val from = plan.container(drawer)?.pinnedFrom ?: "never"
        return from != "never" && widths.indexOf(width) >= widths.indexOf(from)
    }

    private fun switchTo(node: Lanes, id: String, lane: Node): Lanes {
        var lanes = node.lanes + (id to lane)
        if (node.active != id && plan.container(node.at)?.keeps == false) lanes = lanes - node.active
        return node.copy(active = id, lanes = lanes, visited = node.visited.filter { it != id } + id, open = false)
    }

    private fun select(node: Lanes, id: String, fresh: Boolean = false): Lanes =
        switchTo(node, id, (if (fresh) null else node.lanes[id]) ?: make(id))

    private class Found(val state: State, val branch: Int, val depth: Int)

    private fun activate(state: State, id: String?): Found? {
        if (id == null) return null
        for (n in state.top downTo 0) {
            val found = bringUp(state.branch(n), id, listOf()) ?: continue
            return Found(state.withLayers(n).withBranch(n, found), n, pathOf(found).indexOfFirst { it.at == id && it !is Shown })
        }
        return null
    }

    private fun bringUp(node: Node, id: String, around: List<String>): Node? {
        if (node is Shown || node.at in around) return null
        if (node.at == id) return node
        val within = around + node.at
        if (node is Stack) {
            for (i in node.items.indices.reversed()) {
                val found = bringUp(node.items[i], id, within) ?: continue
                return node.copy(items = node.items.take(i) + found)
            }
            return null
        }
        node as Lanes
        val members = plan.container(node.at)?.members ?: listOf()
        for (lane in (listOf(node.active) + members + node.lanes.keys).distinct()) {
            val content = node.lanes[lane] ?: (if (id in tree(lane)) make(lane) else null) ?: continue
            val found = bringUp(content, id, within) ?: continue
            return switchTo(node, lane, found)
        }
        return null
    }

    private fun goBack(state: State, n: Int): Change {
        val nodes = state.path(n)
        val open = nodes.indexOfLast { isOpen(it) }
        if (open >= 0) {
            val drawer = nodes[open] as Lanes
            val closes = plan.container(drawer.at)?.closeOn?.contains("back") == true
            return if (closes) Change.Moved(state.update(n, open, closed(drawer))) else nothingToDo
        }
        for (depth in nodes.indices.reversed()) {
            val next = backIn(nodes[depth]) ?: continue
            return Change.Moved(state.update(n, depth, next))
        }
        if (n == 0) return Change.Left
        return if (plan.container(state.layers[n - 1].at)?.closeOn?.contains("back") == true) Change.Moved(state.withLayers(n - 1)) else nothingToDo
    }

    private fun backIn(node: Node): Node? {
        if (node is Stack) return if (node.items.size > 1) node.copy(items = node.items.dropLast(1)) else null
        if (node !is Lanes) return null
        val container = plan.container(node.at) ?: return null
        if (container.onBack == "start") return if (node.active == container.start) null else select(node, container.start)
        if (container.onBack != "previous") return null
        val visited = node.visited.filter { it != node.active }
        val previous = visited.lastOrNull() ?: return null
        return select(node, previous).copy(visited = visited)
    }

    // Moves

    private fun placesExist(move: Move): Boolean {
        fun kindOf(id: String?) = plan.container(id)?.kind
        fun showable(id: String) = id in plan.places && kindOf(id) != "modal"
        val within = move.within
        return when (move.kind) {
            "push", "reset" -> showable(move.to) && (within == null || within == "beneath" || kindOf(within) == "stack")
            "replace" -> showable(move.to)
            "return" -> plan.screen(move.to) != null
            "open" -> kindOf(move.to) == "modal" && (move.show == null || showable(move.show))
            "close" -> move.modal == null || kindOf(move.modal) == "modal"
            "select" -> move.to in plan.places && kindOf(plan.ownerOf(move.to)).let { it == "tabs" || it == "drawer" }
            "menu" -> move.drawer == null || kindOf(move.drawer) == "drawer"
            else -> true
        }
    }

    private fun makeMove(state: State, n: Int, move: Move, args: Args, passes: Boolean): Change = when (move.kind) {
        "push" -> tidied(state, n, move) { push(it, n, move, args, passes) }
        "replace" -> replace(state, n, move.to, args)
        "reset" -> reset(state, n, move, args)
        "return" -> returnTo(state, n, move, args)
        "open" -> open(state, n, move, args)
        "close" -> {
            val at = if (move.modal == null) n - 1 else state.layers.indexOfFirst { it.at == move.modal }
            if (at < 0) nothingToDo else Change.Moved(state.withLayers(at))
        }
        "select" -> tidied(state, n, move) { selectTo(it, state, move) }
        "menu" -> menu(state, n, move)
        "back" -> goBack(state, n)
        "up" -> goUp(state, n)
        "proceed" -> proceed(state)
        else -> Change.Left
    }

    private class Target(val state: State, val branch: Int, val depth: Int, val stack: Stack) {
        val around: List<Node> get() = state.path(branch).take(depth + 1)
        fun fill(items: List<Node>): State = state.update(branch, depth, stack.copy(items = items))
    }

    private fun targetStack(state: State, n: Int, within: String?): Target? {
        if (within == null || within == "beneath") {
            val on = if (within == "beneath" && n > 0) n - 1 else n
            val (stack, depth) = state.nearestStack(on) ?: return null
            return Target(if (on < n) state.withLayers(on) else state, on, depth, stack)
        }
        val found = activate(state, within) ?: return null
        return Target(found.state, found.branch, found.depth, found.state.path(found.branch)[found.depth] as Stack)
    }

    private fun missing(within: String?) = Change.Refused(if (within == null || within == "beneath") "no-stack" else "not-showing")

    private fun insideItself(id: String, around: List<Node>): Boolean {
        if (plan.container(id) == null) return false
        val within = tree(id)
        return around.any { it !is Shown && it.at in within }
    }

    private fun push(state: State, n: Int, move: Move, args: Args, passes: Boolean): Change {
        val target = targetStack(state, n, move.within) ?: return missing(move.within)
        val items = target.stack.items
        val made = make(move.to, args)
        val last = items.last()
        if (move.repeat == "stay" && last.at == move.to && shownIn(last).at == shownIn(made).at && shownIn(last).args == shownIn(made).args) return nothingToDo
        val at = if (move.repeat == "rewind") items.indexOfLast { it.at == move.to } else -1
        if (at >= 0) {
            val kept = items[at]
            val next = target.fill(items.take(at) + (if (passes) withArguments(kept, args) else kept))
            return if (kept === last && !passes && line(state) == line(next)) nothingToDo else Change.Moved(next)
        }
        return if (insideItself(move.to, target.around)) Change.Refused("inside-itself") else Change.Moved(target.fill(items + made))
    }

    private fun withArguments(node: Node, args: Args): Node {
        val nodes = pathOf(node)
        val screen = shownIn(node)
        return replaceOn(nodes, nodes.size - 1, Shown(screen.at, ownArguments(screen.at, args), screen.spent))
    }

    private fun replace(state: State, n: Int, to: String, args: Args): Change {
        val nodes = state.path(n)
        if (insideItself(to, nodes.dropLast(1))) return Change.Refused("inside-itself")
        return Change.Moved(state.update(n, nodes.size - 1, make(to, args)))
    }

    private fun reset(state: State, n: Int, move: Move, args: Args): Change {
        val target = targetStack(state, n, move.within)
        if (target == null) return if (move.within == null || (move.within == "beneath" && n == 0)) replace(state, n, move.to, args) else missing(move.within)
        return if (insideItself(move.to, target.around)) Change.Refused("inside-itself") else Change.Moved(target.fill(listOf(make(move.to, args))))
    }

    private fun returnTo(state: State, n: Int, move: Move, args: Args): Change {
        if (state.current(n).at == move.to) return nothingToDo
        val nodes = state.path(n)
        for (depth in nodes.indices.reversed()) {
            val node = nodes[depth] as? Stack ?: continue
            val at = node.items.dropLast(1).indexOfLast { shownIn(it).at == move.to }
            if (at >= 0) return Change.Moved(state.update(n, depth, node.copy(items = node.items.take(at + 1))))
        }
        return when (move.orElse) {
            "nothing" -> nothingToDo
            "replace" -> replace(state, n, move.to, args)
            else -> push(state, n, Move("push", move.to), args, false)
        }
    }

    private fun open(state: State, n: Int, move: Move, args: Args): Change {
        val before = withDrawersClosed(state, n)
        val already = state.layers.indexOfFirst { it.at == move.to }
        if (already >= 0) return if (already == state.top - 1) nothingToDo else Change.Moved(before.withLayers(already + 1))
        val rest = if (move.instead) before.layers.dropLast(1) else before.layers
        return Change.Moved(before.copy(layers = rest + Layer(move.to, make(move.show ?: plan.container(move.to)?.start ?: "", args))))
    }

    private fun withDrawersClosed(state: State, n: Int): State {
        var out = state
        state.path(n).forEachIndexed { depth, node -> if (isOpen(node)) out = out.update(n, depth, closed(out.path(n)[depth] as Lanes)) }
        return out
    }

    private fun selectTo(state: State, before: State, move: Move): Change {
        val found = activate(state, plan.ownerOf(move.to)) ?: return Change.Refused("not-showing")
        val node = found.state.path(found.branch)[found.depth] as? Lanes ?: return Change.Refused("not-showing")
        val next = found.state.update(found.branch, found.depth, select(node, move.to, move.fresh))
        return if (!move.fresh && line(before) == line(next)) nothingToDo else Change.Moved(next)
    }

    private fun menu(state: State, n: Int, move: Move): Change {
        val nodes = state.path(n)
        val depth = if (move.drawer == null) nodes.indexOfLast { it is Lanes && it.drawer } else nodes.indexOfFirst { it is Lanes && it.drawer && it.at == move.drawer }
        val node = nodes.getOrNull(depth) as? Lanes
        if (node == null || isPinned(node.at, state.width)) return nothingToDo
        val opens = move.action == "open" || (move.action != "close" && !node.open)
        return if (opens == node.open) nothingToDo else Change.Moved(state.update(n, depth, node.copy(open = opens)))
    }

    private fun popped(state: State, n: Int, found: Pair<Stack, Int>): State =
        state.update(n, found.second, found.first.copy(items = found.first.items.dropLast(1)))

    private fun goUp(state: State, n: Int): Change {
        val found = state.nearestStack(n)
        val canPop = found != null && found.first.items.size > 1
        if (n > 0) return if (found != null && canPop) Change.Moved(popped(state, n, found)) else nothingToDo
        val source = state.current(n)
        val target = upTarget(source.at) ?: return nothingToDo
        fun matches(item: Node) = item.at == target || (plan.screen(target) != null && shownIn(item).at == target)
        val beneath = found?.first?.items?.dropLast(1)?.indexOfLast { matches(it) } ?: -1
        if (found != null && beneath >= 0) return Change.Moved(state.update(n, found.second, found.first.copy(items = found.first.items.take(beneath + 1))))
        if (target !in plan.places) return Change.Refused("no-place")
        val owner = plan.ownerOf(target)
        val up = if (plan.container(owner)?.kind == "modal") null else activate(if (found != null && canPop) popped(state, n, found) else state, owner)
        val node = up?.state?.path(up.branch)?.get(up.depth)
        if (up == null || node == null || node is Shown) return rebuild(state, target, source.args)
        if (node is Lanes) return Change.Moved(up.state.update(up.branch, up.depth, select(node, target)))
        node as Stack
        val at = node.items.indexOfLast { matches(it) }
        val items = if (at >= 0) node.items.take(at + 1) else trail(target, source.args)
        return Change.Moved(up.state.update(up.branch, up.depth, node.copy(items = items)))
    }

    private fun tidied(state: State, n: Int, move: Move, make: (State) -> Change): Change {
        val untidied = make(state)
        val named = move.kind == "select" || (move.within != null && move.within != "beneath")
        val found = state.nearestStack(n)
        if (move.tidy == null || !named || untidied is Change.Refused || found == null || found.first.items.size < 2) return untidied
        val items = if (move.tidy == "source") found.first.items.dropLast(1) else found.first.items.take(1)
        return make(state.update(n, found.second, found.first.copy(items = items)))
    }

    // What expressions read

    private fun valuesOn(state: State, screen: Shown, item: Args? = null, field: Args? = null): Values =
        Values(state.facts, state.width, screen.args, item, field, null) { neighbour(screen, it) }

    private fun neighbour(screen: Shown, step: Int): Args? {
        val pages = plan.screen(screen.at)?.pages ?: return null
        val type = plan.rows[pages.over] ?: return null
        val rows = if (pages.order == null) type.all() else type.all().sortedWith(Comparator { a, b -> compareValues(a[pages.order], b[pages.order]) })
        val by = screen.args[pages.by]
        val at = rows.indexOfFirst { (by != null && it[type.key] == by) || it == by }
        return if (at < 0) null else rows.getOrNull(at + step)
    }

    private fun compareValues(a: Any?, b: Any?): Int =
        if (a is Double && b is Double) a.compareTo(b) else text(a).compareTo(text(b))

    private fun rowOf(leg: Leg, item: Any): Args? {
        @Suppress("UNCHECKED_CAST")
        if (item is Map<*, *>) return item as Args
        val type = plan.rows[leg.rows ?: ""] ?: return null
        val rows = type.all()
        return rows.firstOrNull { it[type.key] == item || text(it[type.key]) == item } ?: (item as? Double)?.let { rows.getOrNull(it.toInt()) }
    }

    private fun holds(expression: Expression?, v: Values): Boolean = expression == null || expression(v) == true

    private class Destination(val allowed: Boolean, val to: String?, val args: Args)

    private fun destination(state: State, id: String, given: Args): Destination? {
        val entrance = plan.entrances[id] ?: return null
        val v = Values(state.facts, state.width, mapOf(), null, null, given.mapValues { text(it.value) })
        val allowed = holds(entrance.condition, v)
        val to = if (plan.screen(entrance.to) == null) null else entrance.to
        val args = mutableMapOf<String, Any?>()
        if (entrance.pass != null) {
            for ((name, value) in entrance.pass) value(v)?.let { args[name] = it }
            return Destination(allowed, to, args)
        }
        for (param in plan.screen(firstScreen(entrance.to) ?: "")?.params ?: listOf())
            if (param.name in entrance.variables) given[param.name]?.let { fromText(it, param.type) }?.let { args[param.name] = it }
        return Destination(allowed, to, args)
    }

    private fun fromText(value: Any, type: String): Any? {
        if (value !is String) return value
        return when (type) {
            "integer" -> if (Regex("[+-]?\\d+").matches(value)) value.toDoubleOrNull() else null
            "number" -> value.trim().toDoubleOrNull()
            "boolean" -> when (value) { "true" -> true; "false" -> false; else -> null }
            else -> value
        }
    }

    // Events

    private fun arrive(before: State?, start: State): State? {
        var last = before
        var state = start
        var count = 0
        while (true) {
            if (before != null && last != null && state.top < last.top && state.top <= before.top && before.current(state.top) === state.current()) return state
            val screen = state.current()
            val v = valuesOn(state, screen)
            val firing = plan.legsFrom(screen.at, "arrive").firstOrNull { isSource(state, state.top, screen.at) && canFire(it, screen, v) } ?: return state
            val change = fire(state, state.top, firing, v, null) as? Change.Moved ?: return state
            if (count >= 32) return null
            count += 1
            last = state
            state = change.state
        }
    }

    private fun inReach(state: State): List<Int> {
        val out = mutableListOf(state.top)
        var n = state.top
        while (n > 0 && plan.container(state.layers[n - 1].at)?.blocks == false) {
            n -= 1
            out.add(n)
        }
        return out
    }

    private fun isSource(state: State, n: Int, place: String, drawersClosed: Boolean = false): Boolean {
        val nodes = state.path(n)
        val found = nodes.lastOrNull { it.at == place }
        if (!drawersClosed && nodes.any { isOpen(it) }) return found != null && isOpen(found)
        if (found == null) return n > 0 && state.layers[n - 1].at == place
        return !(found is Lanes && found.drawer) || isPinned(place, state.width)
    }

    private fun canFire(id: String, screen: Shown, v: Values, by: String? = null): Boolean =
        ready(id, screen, v) && plan.earlierThan(id).none { answers(it, by) && ready(it, screen, v) }

    private fun answers(id: String, by: String?): Boolean = by == null || plan.legs.getValue(id).by?.contains(by) != false

    private fun ready(id: String, screen: Shown, v: Values): Boolean {
        val leg = plan.legs.getValue(id)
        if (leg.never || (leg.on == "after" && id in screen.spent) || screen.at in leg.except) return false
        return holds(leg.condition, v) && holds(leg.shown, v) && holds(leg.enabled, v)
    }

    private fun fire(state: State, n: Int, id: String, v: Values, given: Args?): Change {
        val leg = plan.legs.getValue(id)
        val drawer = if (leg.move?.kind == "menu") -1 else state.path(n).indexOfFirst { isOpen(it) && it.at == leg.from }
        var before = if (drawer < 0) state else state.update(n, drawer, closed(state.path(n)[drawer] as Lanes))
        if (leg.on == "after") {
            val screen = before.current(n)
            before = before.update(n, before.path(n).size - 1, Shown(screen.at, screen.args, screen.spent + id))
        }
        val facts = factsAfter(leg, state, v)
        val resumed = if (leg.resumes) resume(before, facts ?: state.facts) else null
        if (resumed == null && leg.move != null && !placesExist(leg.move)) return Change.Refused("no-place")
        val args = given ?: argumentsOf(leg, v)
        if (facts == null || (resumed == null && args == null)) return Change.Refused("no-value")
        val sets = facts != state.facts
        val change = resumed ?: if (leg.move != null) makeMove(before, n, leg.move, args ?: mapOf(), leg.passes || given != null) else if (sets) Change.Moved(before) else nothingToDo
        if (change is Change.Moved) return if (sets) Change.Moved(change.state.copy(facts = facts)) else change
        return if (change is Change.Ignored && drawer >= 0) Change.Moved(before) else change
    }

    private fun argumentsOf(leg: Leg, v: Values): Args? {
        val args = mutableMapOf<String, Any?>()
        for ((name, given) in leg.pass) {
            val value = given.value(v)
            if (value != null) args[name] = value else if (given.required) return null
        }
        return args
    }

    private fun factsAfter(leg: Leg, state: State, v: Values): Args? {
        val facts = state.facts.toMutableMap()
        for ((id, expression) in leg.set) {
            val value = expression(v)
            val values = plan.facts[id]?.values
            if (value == null || (values != null && value !in values)) return null
            facts[id] = value
        }
        return facts
    }

    private fun resume(state: State, facts: Args): Change? {
        val waiting = state.waiting ?: return null
        val found = destination(state.copy(facts = facts), waiting.entrance, waiting.args)
        if (found == null || !found.allowed) return null
        return if (found.to == null) Change.Refused("no-place") else rebuild(state.copy(waiting = null), found.to, found.args)
    }

    private fun proceed(state: State): Change {
        val held = state.held ?: return nothingToDo
        val beneath = state.withLayers(held.depth).copy(held = null)
        val change = unasked(beneath, held.event, true)
        return if (change is Change.Ignored) Change.Moved(beneath) else change
    }

    private fun kindOf(event: Event): String? = when (event) {
        is Event.Back -> "back"
        is Event.Lead -> "lead"
        is Event.Tab -> "tab"
        is Event.Pick -> "pick"
        is Event.Close -> "close"
        is Event.Enter -> if (event.cold) null else "link"
        else -> null
    }

    private fun attempt(state: State, event: Event): Change {
        if (event is Event.UseLeg) return useLeg(state, event)
        val tried = unasked(state, event, false)
        val by = kindOf(event) ?: return tried
        if (!(tried is Change.Left || (tried is Change.Moved && line(tried.state, false) != line(state, false)))) return tried
        val control = controlOf(state, event, false)
        val n = control?.branch ?: state.top
        val places = state.path(n).map { it.at }.reversed() + (if (n > 0) listOf(state.layers[n - 1].at) else listOf())
        val screen = state.current(n)
        val v = valuesOn(state, screen)
        val asked = places.filter { isSource(state, n, it, true) }.flatMap { plan.legsFrom(it, "depart") }.firstOrNull { answers(it, by) && canFire(it, screen, v, by) } ?: return tried
        val instead = fire(state, n, asked, v, null)
        if (plan.legs.getValue(asked).move == null)
            return if (instead is Change.Moved && tried is Change.Moved) Change.Moved(tried.state.copy(facts = instead.state.facts)) else tried
        if (instead is Change.Left) return instead
        if (instead !is Change.Moved) return tried
        return if (instead.state.top <= state.top) instead else Change.Moved(instead.state.copy(held = Held(event, state.top)))
    }

    private fun useLeg(state: State, event: Event.UseLeg): Change {
        val leg = plan.legs[event.leg] ?: return noControl
        if (leg.on == "arrive" || leg.on == "depart") return noControl
        val row = event.item?.let { rowOf(leg, it) }
        if (event.item != null && row == null && plan.rows[leg.rows ?: ""] != null) return noControl
        for (n in inReach(state)) {
            val screen = state.current(n)
            val v = valuesOn(state, screen, row, event.fields)
            if (isSource(state, n, leg.from) && canFire(event.leg, screen, v)) return fire(state, n, event.leg, v, event.args)
        }
        return noControl
    }

    private fun unasked(state: State, event: Event, held: Boolean): Change = when (event) {
        is Event.UseLeg -> useLeg(state, event)
        is Event.Tab -> choose(state, event, event.to, held)
        is Event.Pick -> choose(state, event, event.to, held)
        is Event.Lead -> pressLead(state)
        is Event.Close -> closeBy(state, event.via)
        is Event.Back -> goBack(state, state.top)
        is Event.Enter -> enter(state, event)
        is Event.Launch -> Change.Moved(anew(state))
        is Event.SetFact -> setFact(state, event.fact, event.value)
        is Event.Width -> setWidth(state, event.to)
    }

    private class Control(val branch: Int, val depth: Int, val node: Lanes)

    private fun controlOf(state: State, event: Event, held: Boolean): Control? {
        val to = (event as? Event.Tab)?.to ?: (event as? Event.Pick)?.to ?: return null
        for (n in inReach(state)) {
            val nodes = state.path(n)
            val drawerOpen = nodes.any { isOpen(it) }
            val depth = nodes.indexOfLast { node ->
                node is Lanes && plan.container(node.at)?.members?.contains(to) == true &&
                    if (event is Event.Pick) node.drawer && (held || node.open || isPinned(node.at, state.width))
                    else !node.drawer && !drawerOpen && plan.screen(shownIn(node).at)?.coversTabs != true
            }
            if (depth >= 0) return Control(n, depth, nodes[depth] as Lanes)
        }
        return null
    }

    private fun choose(state: State, event: Event, to: String, held: Boolean): Change {
        val control = controlOf(state, event, held) ?: return noControl
        val node = control.node
        fun put(next: Lanes) = Change.Moved(state.update(control.branch, control.depth, next))
        if (node.active != to) return put(select(node, to))
        if (node.drawer) return if (node.open) put(closed(node)) else nothingToDo
        val lane = node.lanes[node.active] as? Stack
        if (plan.container(node.at)?.chosenAgain != "root" || lane == null || lane.items.size < 2) return nothingToDo
        return put(node.copy(lanes = node.lanes + (node.active to lane.copy(items = lane.items.take(1)))))
    }

    /** What the control at the start of the bar is: back, up, menu, idle or none. */
    fun leadOf(state: State): String {
        val n = state.top
        val bar = barOf(state, n)
        if (!bar.show || bar.lead == "none") return "none"
        val canPop = (state.nearestStack(n)?.first?.items?.size ?: 0) > 1
        val up = n == 0 && upTarget(state.current(n).at) != null
        return when (bar.lead) {
            "auto" -> if (canPop) "back" else if (up) "up" else "none"
            "back" -> if (canPop) "back" else "none"
            "up" -> if (n == 0) (if (up) "up" else "idle") else if (canPop) "back" else "idle"
            else -> {
                val drawer = state.path(n).lastOrNull { it is Lanes && it.drawer }
                if (drawer == null) "idle" else if (isPinned(drawer.at, state.width)) "none" else "menu"
            }
        }
    }

    private fun barOf(state: State, n: Int): Bar {
        val nodes = state.path(n).reversed()
        val own = plan.screen(nodes.first().at)?.bar
        val around = nodes.drop(1).map { it.at } + (if (n > 0) listOf(state.layers[n - 1].at) else listOf())
        return own ?: around.mapNotNull { plan.container(it)?.bar }.firstOrNull() ?: Bar(true, "auto")
    }

    private fun pressLead(state: State): Change {
        val n = state.top
        val lead = leadOf(state)
        val depth = state.nearest(n) { it is Lanes && it.drawer }
        val drawer = state.path(n).getOrNull(depth) as? Lanes
        if (state.path(n).any { isOpen(it) }) {
            val closes = lead == "menu" && drawer != null && drawer.open && plan.container(drawer.at)?.over == false
            return if (drawer != null && closes) Change.Moved(state.update(n, depth, closed(drawer))) else nothingToDo
        }
        return when (lead) {
            "none" -> noControl
            "up" -> goUp(state, n)
            "menu" -> if (drawer != null) Change.Moved(state.update(n, depth, drawer.copy(open = true))) else nothingToDo
            "back" -> state.nearestStack(n)?.let { Change.Moved(popped(state, n, it)) } ?: nothingToDo
            else -> nothingToDo
        }
    }

    private fun closeBy(state: State, via: String): Change {
        if (via == "back") return noControl
        val n = state.top
        val nodes = state.path(n)
        val open = nodes.indexOfLast { isOpen(it) }
        if (open >= 0) {
            val drawer = nodes[open] as Lanes
            return if (plan.container(drawer.at)?.closeOn?.contains(via) == true) Change.Moved(state.update(n, open, closed(drawer))) else noControl
        }
        val modal = if (n > 0) plan.container(state.layers[n - 1].at) else null
        val closes = modal != null && via in modal.closeOn && !(via == "outside" && modal.full)
        return if (closes) Change.Moved(state.withLayers(n - 1)) else noControl
    }

    private fun anew(state: State): State {
        val facts = plan.facts.mapValues { (id, fact) -> (if (fact.persists || fact.outside) state.facts[id] else null) ?: fact.initial }
        return State(make(plan.root), listOf(), facts, state.width)
    }

    private fun enter(state: State, event: Event.Enter): Change {
        val entrance = plan.entrances[event.entrance] ?: return noControl
        val start = if (event.cold) anew(state) else state
        val found = destination(start, event.entrance, event.args) ?: return noControl
        if (!found.allowed) {
            if (entrance.otherwise == null) return if (event.cold) Change.Moved(start) else Change.Refused("not-allowed")
            val waiting = if (entrance.resume) start.copy(waiting = Waiting(event.entrance, event.args)) else start
            return rebuild(waiting, entrance.otherwise, mapOf())
        }
        if (found.to == null) return Change.Refused("no-place")
        val bare = withDrawersClosed(start.copy(layers = listOf()), 0)
        val stack = if (event.cold || !entrance.onTop) null else bare.nearestStack(0)
        if (stack == null) return rebuild(start, found.to, found.args)
        return Change.Moved(bare.update(0, stack.second, stack.first.copy(items = stack.first.items + make(found.to, found.args))))
    }

    private fun setFact(state: State, id: String, value: Any): Change {
        val fact = plan.facts[id] ?: return noControl
        val possible = if (fact.values != null) value in fact.values else value is Boolean
        if (!fact.outside || !possible) return noControl
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

// What conditions and arguments are made of. One side that decides makes up for another that is not there.
fun member(value: Any?, name: String): Any? = (value as? Map<*, *>)?.get(name)
fun not(a: Any?): Any? = if (a == null) null else a != true
fun and(a: Any?, b: () -> Any?): Any? {
    if (a == false) return false
    val other = b()
    return if (other == false) false else if (a == null || other == null) null else true
}
fun or(a: Any?, b: () -> Any?): Any? {
    if (a == true) return true
    val other = b()
    return if (other == true) true else if (a == null || other == null) null else false
}
fun either(test: Any?, yes: () -> Any?, no: () -> Any?): Any? = if (test == null) null else if (test == true) yes() else no()
fun equal(a: Any?, b: Any?): Any? = if (a == null || b == null) null else a == b
fun ordered(op: String, a: Any?, b: Any?): Any? {
    if (a == null || b == null) return null
    val order = if (a is Double && b is Double) a.compareTo(b) else text(a).compareTo(text(b))
    return when (op) { "<" -> order < 0; "<=" -> order <= 0; ">" -> order > 0; else -> order >= 0 }
}
fun plus(a: Any?, b: Any?): Any? = if (a == null || b == null) null else if (a is Double && b is Double) a + b else text(a) + text(b)
fun minus(a: Any?): Any? = (a as? Double)?.let { -it }
