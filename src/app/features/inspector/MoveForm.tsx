import { lookup, nameOf, ownersAround, treeOf } from "../../../core/model/lookup.ts";
import type { Leg, Move, Project } from "../../../core/model/schema.ts";
import { Check, Choice, TextField } from "../../ui/Field.tsx";

type Kinds = Move["kind"];
type Of<K extends Kinds> = Extract<Move, { kind: K }>;

interface Props<K extends Kinds> {
  project: Project;
  leg: Leg;
  move: Of<K>;
  onChange: (move: Move) => void;
}

/** The value of a drop-down that stands for a field that is left out. */
const UNSET = "";
const named = (project: Project, ids: readonly string[]) => ids.map((id) => ({ value: id, label: nameOf(project, id) }));

/** A move with a field that is set, or left out where it says nothing. */
function withField<M extends Move>(move: M, key: string, value: unknown): M {
  const { [key]: _, ...rest } = move as M & Record<string, unknown>;
  return (value === undefined || value === UNSET || value === false ? rest : { ...rest, [key]: value }) as M;
}

/** What else can be said of how a leg goes, in terms of what happens. */
export function MoveForm({ project, leg, move, onChange }: { project: Project; leg: Leg; move: Move; onChange: (move: Move) => void }) {
  const props = { project, leg, onChange };
  switch (move.kind) {
    case "push":
      return <PushForm {...props} move={move} />;
    case "reset":
      return <Host {...props} move={move} label="Clears and starts" />;
    case "return":
      return <ReturnForm {...props} move={move} />;
    case "open":
      return <OpenForm {...props} move={move} />;
    case "close":
      return <CloseForm {...props} move={move} />;
    case "select":
      return <SelectForm {...props} move={move} />;
    case "menu":
      return <MenuForm {...props} move={move} />;
    case "leave":
      return (
        <TextField
          label="Opens outside the app"
          value={move.url ?? ""}
          placeholder="https://example.org/help"
          onCommit={(url) => onChange(withField(move, "url", url.trim()))}
        />
      );
    case "replace":
    case "back":
    case "up":
    case "proceed":
      return null;
  }
}

/** Whether a move has anything more to be said of it. */
export function hasMore(move: Move): boolean {
  return !["replace", "back", "up", "proceed"].includes(move.kind);
}

/** Whether anything more is said of a move already, in a few words. */
export function moreSaid(move: Move): string | undefined {
  const known = ["in", "repeat", "tidy", "orElse", "show", "instead", "fresh", "drawer", "action", "url"];
  const said = Object.keys(move).filter((key) => known.includes(key));
  return said.length > 0 ? `${said.length} set` : undefined;
}

/** In which stack a push or a reset takes place. */
function Host({ project, leg, move, label, onChange }: (Props<"push"> | Props<"reset">) & { label: string }) {
  const inModal = [leg.from, ...ownersAround(project, leg.from).map((c) => c.id)].some((id) => lookup(project).containers.get(id)?.kind === "modal");
  const stacks = project.containers.filter((c) => c.kind === "stack").map((c) => c.id);
  const options = [
    { value: UNSET, label: "in the stack around it" },
    ...(inModal || move.in === "beneath" ? [{ value: "beneath", label: "on the page beneath" }] : []),
    ...named(project, stacks).map(({ value, label: name }) => ({ value, label: `in ${name}` })),
  ];
  return <Choice label={label} value={move.in ?? UNSET} options={options} onChange={(at) => onChange(withField(move, "in", at))} />;
}

function PushForm(props: Props<"push">) {
  const { move, onChange } = props;
  return (
    <>
      <Host {...props} label="Goes on top" />
      <Choice
        label="Where it is there already"
        value={move.repeat ?? UNSET}
        options={[
          { value: UNSET, label: "as the screen says" },
          { value: "copy", label: "one more copy on top" },
          { value: "stay", label: "stays on it, if it is on top" },
          { value: "rewind", label: "goes back to it" },
        ]}
        onChange={(repeat) => onChange(withField(move, "repeat", repeat))}
      />
      <Tidy move={move} onChange={onChange} />
    </>
  );
}

/** What goes from the history with the step: "…and the form goes". */
function Tidy({ move, onChange }: { move: Of<"push"> | Of<"select">; onChange: (move: Move) => void }) {
  return (
    <Choice
      label="What is left behind"
      value={move.tidy ?? UNSET}
      options={[
        { value: UNSET, label: "stays, Back finds it" },
        { value: "source", label: "this screen goes from the history" },
        { value: "stack", label: "its stack goes back to its start" },
      ]}
      onChange={(tidy) => onChange(withField(move, "tidy", tidy))}
    />
  );
}

function ReturnForm({ move, onChange }: Props<"return">) {
  return (
    <Choice
      label="Where it is not beneath"
      value={move.orElse ?? UNSET}
      options={[
        { value: UNSET, label: "as usual: pushes it" },
        { value: "push", label: "pushes it" },
        { value: "replace", label: "replaces this screen with it" },
        { value: "nothing", label: "does nothing" },
      ]}
      onChange={(orElse) => onChange(withField(move, "orElse", orElse))}
    />
  );
}

function OpenForm({ project, move, onChange }: Props<"open">) {
  const inside = treeOf(project, move.to).filter((id) => id !== move.to);
  return (
    <>
      <Choice
        label="Shows first"
        value={move.show ?? UNSET}
        options={[{ value: UNSET, label: "what the modal shows first" }, ...named(project, inside)]}
        onChange={(show) => onChange(withField(move, "show", show))}
      />
      <Check
        label="takes the place of the modal that is up"
        value={move.instead === true}
        onChange={(instead) => onChange(withField(move, "instead", instead))}
      />
    </>
  );
}

function CloseForm({ project, move, onChange }: Props<"close">) {
  const modals = project.containers.filter((c) => c.kind === "modal").map((c) => c.id);
  return (
    <Choice
      label="Closes"
      value={move.modal ?? UNSET}
      options={[{ value: UNSET, label: "what is up" }, ...named(project, modals)]}
      onChange={(modal) => onChange(withField(move, "modal", modal))}
    />
  );
}

function SelectForm({ move, onChange }: Props<"select">) {
  return (
    <>
      <Check label="starts over there, whatever was left" value={move.fresh === true} onChange={(fresh) => onChange(withField(move, "fresh", fresh))} />
      <Tidy move={move} onChange={onChange} />
    </>
  );
}

function MenuForm({ project, move, onChange }: Props<"menu">) {
  const drawers = project.containers.filter((c) => c.kind === "drawer").map((c) => c.id);
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="Drawer"
        value={move.drawer ?? UNSET}
        options={[{ value: UNSET, label: "the one around it" }, ...named(project, drawers)]}
        onChange={(drawer) => onChange(withField(move, "drawer", drawer))}
      />
      <Choice
        label="What it does"
        value={move.action ?? UNSET}
        options={[
          { value: UNSET, label: "opens or closes it" },
          { value: "open", label: "opens it" },
          { value: "close", label: "closes it" },
          { value: "toggle", label: "opens or closes it, always" },
        ]}
        onChange={(action) => onChange(withField(move, "action", action))}
      />
    </div>
  );
}
