// Values as JSON, and a state as data: for when the system ends the app

@Suppress("UNCHECKED_CAST")
fun argsOf(value: Any?): Args? = value as? Args

fun writeJson(value: Any?): String = when (value) {
    null -> "null"
    is String -> quoted(value)
    is Double -> text(value)
    is Boolean -> value.toString()
    is List<*> -> value.joinToString(",", "[", "]") { writeJson(it) }
    is Map<*, *> -> value.entries.joinToString(",", "{", "}") { quoted(it.key.toString()) + ":" + writeJson(it.value) }
    else -> quoted(value.toString())
}

private fun quoted(text: String): String = text.map { c ->
    when {
        c == '"' || c == '\\' -> "\\" + c
        c < ' ' || c == '\u2028' || c == '\u2029' || c.isSurrogate() -> "\\u" + c.toInt().toString(16).padStart(4, '0')
        else -> c.toString()
    }
}.joinToString("", "\"", "\"")

private fun dataOf(node: Node): Data = when (node) {
    is Shown -> mapOf("kind" to "shown", "at" to node.at, "args" to node.args, "spent" to node.spent)
    is Stack -> mapOf("kind" to "stack", "at" to node.at, "items" to node.items.map { dataOf(it) })
    is Lanes -> mapOf(
        "kind" to "lanes", "at" to node.at, "drawer" to node.drawer, "active" to node.active,
        "lanes" to node.lanes.mapValues { dataOf(it.value) }, "visited" to node.visited, "open" to node.open
    )
}

private fun nodeOf(data: Data): Node {
    val at = data.text("at") ?: ""
    return when (data.text("kind")) {
        "shown" -> Shown(at, data.part("args") ?: mapOf(), data.texts("spent"))
        "stack" -> Stack(at, data.parts("items").map { nodeOf(it) })
        else -> Lanes(
            at, data.flag("drawer"), data.text("active") ?: "",
            (data.part("lanes") ?: mapOf()).keys.associateWith { nodeOf(data.part("lanes")?.part(it) ?: mapOf()) }, data.texts("visited"), data.flag("open")
        )
    }
}

private fun dataOf(event: Event): Data = when (event) {
    is Event.UseLeg -> mapOf("do" to "leg", "leg" to event.leg, "item" to event.item, "fields" to event.fields)
    is Event.Tab -> mapOf("do" to "tab", "to" to event.to)
    is Event.Pick -> mapOf("do" to "pick", "to" to event.to)
    is Event.Close -> mapOf("do" to "close", "via" to event.via)
    is Event.Enter -> mapOf("do" to "enter", "entrance" to event.entrance, "args" to event.args, "cold" to event.cold)
    is Event.SetFact -> mapOf("do" to "fact", "fact" to event.fact, "value" to event.value)
    is Event.Width -> mapOf("do" to "width", "to" to event.to)
    is Event.Lead -> mapOf("do" to "lead")
    is Event.Back -> mapOf("do" to "back")
    is Event.Launch -> mapOf("do" to "launch")
}

/** An event from its data, as walks and logs have it. */
fun eventOf(data: Data): Event = when (data.text("do")) {
    "leg" -> Event.UseLeg(data.text("leg") ?: "", data["item"], data.part("fields"))
    "tab" -> Event.Tab(data.text("to") ?: "")
    "pick" -> Event.Pick(data.text("to") ?: "")
    "lead" -> Event.Lead
    "back" -> Event.Back
    "launch" -> Event.Launch
    "close" -> Event.Close(data.text("via") ?: "")
    "enter" -> Event.Enter(data.text("entrance") ?: "", data.part("args") ?: mapOf(), data.flag("cold"))
    "fact" -> Event.SetFact(data.text("fact") ?: "", data["value"] ?: "")
    else -> Event.Width(data.text("to") ?: "narrow")
}

fun dataOf(state: State): Data = mapOf(
    "base" to dataOf(state.base), "layers" to state.layers.map { mapOf("at" to it.at, "content" to dataOf(it.content)) },
    "facts" to state.facts, "width" to state.width,
    "waiting" to state.waiting?.let { mapOf("entrance" to it.entrance, "args" to it.args) },
    "held" to state.held?.let { mapOf("event" to dataOf(it.event), "depth" to it.depth.toDouble()) }
)

fun stateOf(data: Data): State = State(
    nodeOf(data.part("base") ?: mapOf()), data.parts("layers").map { Layer(it.text("at") ?: "", nodeOf(it.part("content") ?: mapOf())) },
    data.part("facts") ?: mapOf(), data.text("width") ?: "narrow",
    data.part("waiting")?.let { Waiting(it.text("entrance") ?: "", it.part("args") ?: mapOf()) },
    data.part("held")?.let { Held(eventOf(it.part("event") ?: mapOf()), (it["depth"] as? Double ?: 0.0).toInt()) }
)

/** Addresses by patterns such as `/hives/{hiveId}`: one variable a segment, and the last may take the rest of the path. */
object Patterns {
    private val hole = Regex("([^{]*)\\{([A-Za-z_]\\w*)\\}([^}]*)")
    private val rest = Regex("\\{\\+([A-Za-z_]\\w*)\\}")
    private val variable = Regex("\\{(\\+?)([A-Za-z_]\\w*)\\}")

    private fun segments(path: String): List<String> =
        path.replace(Regex("^[A-Za-z][A-Za-z0-9+.-]*://[^/]*"), "").removePrefix("/").removeSuffix("/").split("/")

    /** The variables that a pattern finds in an address, decoded; null where it does not match. */
    fun match(pattern: String, address: String): Map<String, String>? {
        val wanted = segments(pattern)
        val found = segments(address.takeWhile { it != '?' && it != '#' })
        val out = mutableMapOf<String, String>()
        for ((i, segment) in wanted.withIndex()) {
            val open = if (i == wanted.size - 1) rest.matchEntire(segment) else null
            val text = if (open != null) found.drop(i).joinToString("/") else found.getOrNull(i)
            if (text == null || text == "") return null
            if (open != null) {
                out[open.groupValues[1]] = decoded(text) ?: return null
                return out
            }
            val parts = hole.matchEntire(segment)
            if (parts == null) {
                if (decoded(text) != decoded(segment)) return null
                continue
            }
            val (before, name, after) = parts.destructured
            if (text.length <= before.length + after.length || !text.startsWith(before) || !text.endsWith(after)) return null
            out[name] = decoded(text.substring(before.length, text.length - after.length)) ?: return null
        }
        return if (wanted.size == found.size) out else null
    }

    /** Which of two patterns goes first: fixed text before a variable, a variable before the rest of the path. */
    fun compare(a: String, b: String): Int {
        fun openness(segment: String?): Int = if (segment == null || !segment.contains("{")) 0 else if (segment.contains("{+")) 2 else 1
        val (x, y) = Pair(segments(a), segments(b))
        for (i in 0 until maxOf(x.size, y.size)) (openness(x.getOrNull(i)) - openness(y.getOrNull(i))).let { if (it != 0) return it }
        return 0
    }

    /** The address of a pattern with its variables filled in; null where one has no value. */
    fun build(pattern: String, values: Args): String? {
        var complete = true
        val address = variable.replace(pattern) {
            val value = values[it.groupValues[2]]
            if (value == null || value == "" || value is Map<*, *> || value is List<*>) complete = false
            val text = encoded(text(value))
            Regex.escapeReplacement(if (it.groupValues[1] == "+") text.replace("%2F", "/") else text).replace("\\", "")
        }
        return if (complete) address else null
    }

    private fun encoded(text: String): String = text.toByteArray(Charsets.UTF_8).joinToString("") {
        val c = it.toInt() and 255
        if (c < 128 && (c.toChar().isLetterOrDigit() || c.toChar() in "-_.~")) c.toChar().toString() else "%" + c.toString(16).toUpperCase().padStart(2, '0')
    }

    private fun decoded(text: String): String? {
        val bytes = java.io.ByteArrayOutputStream()
        var at = 0
        while (at < text.length) {
            if (text[at] == '%') {
                val code = if (at + 2 < text.length) text.substring(at + 1, at + 3).toIntOrNull(16) else null
                bytes.write(code ?: return null)
                at += 3
            } else {
                val end = if (text[at].isHighSurrogate()) at + 2 else at + 1
                bytes.write(text.substring(at, minOf(end, text.length)).toByteArray(Charsets.UTF_8))
                at = end
            }
        }
        return try {
            Charsets.UTF_8.newDecoder().decode(java.nio.ByteBuffer.wrap(bytes.toByteArray())).toString()
        } catch (e: java.nio.charset.CharacterCodingException) {
            null
        }
    }
}

/** A leg that is to be sent after some milliseconds, unless it is no longer due by then. */
data class Due(val leg: String, val ms: Long)

/** Keeps a state, carries out events, and tells who listens. Not for several threads at once. */
open class Core(
    private val plan: Data,
    private val hash: String,
    private val guards: Map<String, () -> Any>,
    stored: Args,
    rows: (String) -> List<Args>?,
    private val log: ((String) -> Unit)? = null,
    private val run: String = ""
) {
    private val engine = Engine(plan, rows)
    private val listeners = mutableListOf<(State) -> Unit>()
    var state: State = engine.launch(stored)
        private set

    init {
        note(Event.Launch, true)
        askGuards()
    }

    /** The state in one line. */
    val line: String get() = engine.line(state)
    /** What the control at the start of the bar is: back, up, menu, idle or none. */
    val lead: String get() = engine.leadOf(state)
    /** The facts that outlive the app: to be stored, and given again when it starts. */
    val stored: Args get() = state.facts.filterKeys { plan.part("facts")?.part(it)?.flag("persists") == true }
    /** Legs that the app is to send after a while: start a clock for each that is new, and stop those that are no longer here. */
    val due: List<Due> get() = engine.due(state).map { (leg, ms) -> Due(leg, ms.toLong()) }

    /** Carries out an event; what guards say of the outside is asked first. `url` of the outcome is to be opened outside of the app. */
    fun send(event: Event): Outcome {
        askGuards()
        val result = engine.step(state, event)
        if (result.outcome == "moved") become(result.state, event) else note(event)
        return result
    }

    /** Why an event would do nothing now; null where it would do something. */
    fun why(event: Event): String? = engine.step(state, event).why

    /** Calls a function after each change; gives what ends that. */
    fun listen(listener: (State) -> Unit): () -> Unit {
        listeners.add(listener)
        return { listeners.remove(listener) }
    }

    /** Comes in by an address, as a link does; null where no screen and no way in has it. */
    fun open(address: String, cold: Boolean = false): Outcome? {
        val entrances = plan.part("entrances") ?: return null
        var found: Pair<String, Map<String, String>>? = null
        for (id in entrances.keys) {
            val pattern = entrances.part(id)?.text("pattern") ?: continue
            val args = Patterns.match(pattern, address) ?: continue
            if (found == null || Patterns.compare(pattern, entrances.part(found.first)?.text("pattern") ?: "") < 0) found = Pair(id, args)
        }
        return found?.let { send(Event.Enter(it.first, it.second, cold)) }
    }

    /** The address of the screen that shows, if it has one. */
    val address: String? get() {
        val shown = state.current()
        val own = listOf(plan.part("entrances")?.part("~" + shown.at)?.text("pattern"))
        val ways = (plan.part("entrances") ?: mapOf()).keys.mapNotNull { plan.part("entrances")?.part(it) }.filter { it.text("to") == shown.at }.map { it.text("pattern") }
        return (own + ways).filterNotNull().mapNotNull { Patterns.build(it, shown.args) }.firstOrNull()
    }

    /** The state as text, for when the system ends the app. */
    fun toJson(): String = writeJson(mapOf("plan" to hash, "state" to dataOf(state)))

    /** Puts a state in place that was kept; false, and nothing changed, where it is of another version of the design or cannot be read. */
    fun restore(json: String): Boolean {
        val kept = try { readPlan(listOf(json)) } catch (e: RuntimeException) { return false }
        if (kept["plan"] != hash) return false
        become(stateOf(kept.part("state") ?: return false), null)
        return true
    }

    private fun become(next: State, event: Event?) {
        state = next
        note(event)
        for (listener in listeners.toList()) listener(next)
    }

    private fun askGuards() {
        for ((fact, ask) in guards) {
            val event = Event.SetFact(fact, ask())
            val result = engine.step(state, event)
            if (result.outcome == "moved") become(result.state, event)
        }
    }

    /** Tells the log of an event and the state after it, without what was typed into fields; without an event the app was put back. */
    private fun note(event: Event?, launched: Boolean = false) {
        val tell = log ?: return
        val what = if (event == null) mapOf<String, Any?>("restored" to true) else mapOf<String, Any?>("event" to dataOf(event).filter { it.value != null && it.key != "fields" })
        val shown = state.current()
        val now = mapOf<String, Any?>("run" to run, "at" to java.time.Instant.now().toString()) + what
        val shows = mapOf<String, Any?>("shows" to shown.at, "args" to shown.args, "line" to line)
        tell(writeJson(now + shows + (if (launched || event == null) mapOf<String, Any?>("facts" to state.facts) else mapOf<String, Any?>())))
    }
}
