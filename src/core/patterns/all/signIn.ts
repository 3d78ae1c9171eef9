import { nameOf } from "../../model/lookup.ts";
import { firstOf, startsWithNew } from "../first.ts";
import type { Pattern } from "../pattern.ts";
import { beforeStart, leavesFrom } from "../places.ts";

export const SIGN_IN: Pattern = {
  id: "signIn",
  name: "Sign-in first",
  shape: true,
  says: "A welcome and a sign-in that Back never shows again; whoever is a member comes straight in, and signing out leads back to them.",
  words: ["login", "register", "authentication", "account", "welcome", "sign out", "log out"],
  asks: [
    { id: "welcome", label: "The first screen", usual: "Welcome", of: "place" },
    { id: "signIn", label: "The second", usual: "Sign in", of: "place" },
    { id: "signOut", label: "The way out again", usual: "Sign out", of: "label" },
  ],
  where: (project, place) => {
    const before = beforeStart(project);
    return before && `${before}${leavesFrom(project, place) ? `, and the way out again on “${nameOf(project, place)}”` : ""}`;
  },
  put: (making) => {
    const fact = making.fact("member");
    const [welcome, signIn] = [making.name("welcome"), making.name("signIn")];
    const first = firstOf(making);
    const { stack, start } = first;
    const out = leavesFrom(making.project, making.place) ? making.place : undefined;
    making.put(
      [
        making.factLine(fact, " (persists)"),
        `${making.at(stack)}`,
        `  ${welcome} (once, no up, no bar): ${signIn} > ${signIn} (push), on arriving > ${making.at(start)} (reset, if fact.${fact})`,
        `  ${signIn} (once, no up): "E-mail" field (as email), "Continue" (enabled if field.email != "") > ${making.at(start)} (reset, set ${fact} = true)`,
        ...(out ? [`${making.at(out)}: ${making.name("signOut")} > ${welcome} (reset, in ${making.at(stack)}, set ${fact} = false)`] : []),
      ],
      start,
    );
    startsWithNew(making, first);
  },
};
