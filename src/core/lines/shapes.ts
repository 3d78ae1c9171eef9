/** A shape that apps often have, to begin with: the same as lines that anybody could type. */
export interface Shape {
  id: string;
  name: string;
  says: string;
  lines: string;
}

const shape = (id: string, name: string, says: string, ...lines: string[]): Shape => ({ id, name, says, lines: `${lines.join("\n")}\n` });

/** Shapes to begin with, in the order in which they are offered; another one is an entry here. */
export const SHAPES: readonly Shape[] = [
  shape(
    "steps",
    "One after another",
    "A few screens, each on top of the one before; Back goes through them again.",
    "Main",
    "  Home (hub): Begin > First step",
    "  First step: Next > Second step",
    "  Second step: Next > Done",
    "  Done: Finish > Home (reset)",
  ),
  shape(
    "tabs",
    "Tabs",
    "Three tabs at the foot, each with a history of its own.",
    "Main (tabs)",
    "  Home",
    "    Home (hub): Details link > Details",
    "    Details",
    "  Search",
    "    Search (hub): Search field, Show > Result",
    "    Result",
    "  Profile",
    "    Profile (hub): Edit > Edit profile",
    "    Edit profile: Name field, Save > back",
  ),
  shape(
    "menu",
    "Side menu",
    "A menu that slides in from the side, with a place for each entry.",
    "Menu (drawer, Back to the start, lead menu)",
    "  Home",
    "    Home (hub, lead menu): Details link > Details",
    "    Details (lead back)",
    "  Archive (hub, lead menu)",
    "  Settings",
    "    Settings (hub, lead menu): About > About",
    "    About (lead back)",
  ),
  shape(
    "signIn",
    "Sign-in first",
    "A welcome and a sign-in that Back never shows again; signing out comes back to them.",
    "fact member (persists)",
    "Main",
    "  Welcome (once, no up, no bar): Sign in > Sign in, on arriving > Home (reset, if fact.member)",
    '  Sign in (once, no up): E-mail field (as email), Continue (enabled if field.email != "") > Home (reset, set member = true)',
    "  Home (hub): Settings > Settings",
    "  Settings: Sign out > Welcome (reset, set member = false)",
  ),
  shape(
    "flow",
    "A flow that comes up and closes",
    "A sheet with steps of its own over the page; the last one closes it.",
    "Main",
    "  Home (hub): New > New (open)",
    "New (sheet)",
    "  Steps",
    "    What: What field, Next > When",
    "    When: When field, Next > Check",
    "    Check: Save > close, Begin again link > What (reset)",
  ),
  shape(
    "list",
    "List and detail, with paging",
    "Rows that are tapped, a screen for each, and the next and the previous row from there.",
    "rows item(id, name, place: integer): a, First, 1 | b, Second, 2 | c, Third, 3",
    "Main",
    "  Items (hub): Item list (of item, says {item.name}) > Item(itemId = item.id)",
    "  Item(itemId) (title {param.itemId}, pages item by itemId along place)",
    "    - Previous pager (enabled if has(prev.id)) > Item(itemId = prev.id) (replace, if has(prev.id))",
    "    - Next pager (enabled if has(next.id)) > Item(itemId = next.id) (replace, if has(next.id))",
  ),
];
