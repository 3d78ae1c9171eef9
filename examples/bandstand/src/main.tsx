import { createRoot } from "react-dom/client";
import { gigs, seats, tickets, towns } from "./data";
import { Navigator, type TabId } from "./navigation";
import { NavigatorProvider, Screens, useNavigator, usePages } from "./navigation-react";
import { report } from "./report";
import { views } from "./views";

const navigator = new Navigator({
  log: report,
  rows: { gig: () => gigs, seat: () => seats, ticket: () => tickets, town: () => towns },
});

const TABS: ReadonlyArray<readonly [id: TabId, name: string]> = [
  ["gigsTab", "Gigs"],
  ["ticketsTab", "Tickets"],
  ["me", "Me"],
];

function Bandstand() {
  const nav = useNavigator();
  const [page, ...over] = usePages();
  const tabs = page?.around.find(({ kind }) => kind === "tabs");
  return (
    <>
      {nav.lead === "back" && (
        <button type="button" onClick={() => nav.pressLead()}>
          ‹ Back
        </button>
      )}
      {over.length > 0 && (
        <button type="button" onClick={() => nav.close("button")}>
          Close
        </button>
      )}
      <Screens views={views} keep />
      <nav aria-label="Tabs">
        {TABS.map(([id, name]) => (
          <button key={id} type="button" aria-current={tabs?.active === id ? "page" : undefined} onClick={() => nav.tab(id)}>
            {name}
          </button>
        ))}
      </nav>
    </>
  );
}

createRoot(document.querySelector("#app") as HTMLElement).render(
  <NavigatorProvider navigator={navigator} history={{ base: import.meta.env.BASE_URL, unknown: (address) => console.warn(`nothing is at ${address}`) }}>
    <Bandstand />
  </NavigatorProvider>,
);
