import { lazy, Suspense } from "react";
import { useSheets } from "../session/hooks.ts";
import type { Sheet } from "../session/sheets.ts";
import { Later, preload } from "../ui/preloaded.tsx";
import { TypedAhead } from "../ui/typedAhead.tsx";

const DeleteDialog = preload(async () => (await import("../features/commands/DeleteDialog.tsx")).DeleteDialog);
const Palette = preload(async () => (await import("../features/commands/Palette.tsx")).Palette);
const Keys = lazy(async () => ({ default: (await import("../features/commands/Keys.tsx")).Keys }));
const IntoSheet = preload(async () => (await import("../features/commands/IntoSheet.tsx")).IntoSheet);
const FixDialog = lazy(async () => ({ default: (await import("../features/findings/FixDialog.tsx")).FixDialog }));
const FactsSheet = preload(async () => (await import("../features/inspector/FactsSheet.tsx")).FactsSheet);
const WhatIf = lazy(async () => ({ default: (await import("../features/inspector/WhatIf.tsx")).WhatIf }));

/** The sheet that lies over the page, if any. Each is loaded when it is opened first. */
export function Sheets() {
  const sheet = useSheets((s) => s.sheet);
  return sheet && sheet.is !== "patterns" && <Suspense fallback={<TypedAhead />}>{sheetOf(sheet.is)}</Suspense>;
}

function sheetOf(is: Exclude<Sheet["is"], "patterns">): React.ReactNode {
  switch (is) {
    case "palette":
      return <Later part={Palette} />;
    case "delete":
      return <Later part={DeleteDialog} />;
    case "keys":
      return <Keys />;
    case "into":
      return <Later part={IntoSheet} />;
    case "fix":
      return <FixDialog />;
    case "facts":
      return <Later part={FactsSheet} />;
    case "whatIf":
      return <WhatIf />;
  }
}
