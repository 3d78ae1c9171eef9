import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const SEND: Pattern = {
  id: "send",
  name: "Send it, and say how it went",
  says: "A button whose outcome is known only afterwards: a screen says that it was done, a dialog says that it was not and lets people try again.",
  words: ["submit", "loading", "success", "failure", "error", "outcome", "retry", "network", "pay"],
  asks: [
    { id: "send", label: "The button", usual: "Send", of: "label" },
    { id: "done", label: "When it was done", usual: "Sent", of: "place" },
    { id: "failed", label: "When it failed", usual: "Could not be sent", of: "place" },
  ],
  where: onScreen,
  put: (making) => {
    const [send, done, failed] = [making.name("send"), making.name("done"), making.name("failed")];
    making.put([
      `${making.at()}: ${send} > "done": ${done} (push) | "failed": ${failed} (open)`,
      `${done}: "Done" > back`,
      `${failed} (dialog): "Try again later" text, "All right" > close`,
    ]);
  },
};
