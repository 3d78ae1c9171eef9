import { Tabs } from "radix-ui";
import { useDocument } from "../../session/hooks.ts";
import { ParameterTable } from "./ParameterTable.tsx";
import { TypesPanel } from "./TypesPanel.tsx";

/** What the screens need to know and who passes it to them; and the record types with their samples. */
export function ParametersView() {
  const project = useDocument((d) => d.project);
  const tab =
    "min-h-9 text-[12.5px] text-ink-2 hover:text-ink data-[state=active]:border-b-2 data-[state=active]:border-accent data-[state=active]:font-semibold data-[state=active]:text-ink";
  return (
    <Tabs.Root defaultValue="passed" className="flex h-full min-h-0 flex-col bg-paper">
      <Tabs.List aria-label="Parameters" className="flex shrink-0 gap-4 border-b border-hairline px-8">
        <Tabs.Trigger value="passed" className={tab}>
          What is passed
        </Tabs.Trigger>
        <Tabs.Trigger value="types" className={tab}>
          Record types and samples ({project.types.length})
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="passed" className="min-h-0 flex-1 overflow-y-auto">
        <ParameterTable project={project} />
      </Tabs.Content>
      <Tabs.Content value="types" className="min-h-0 flex-1 overflow-y-auto">
        <TypesPanel project={project} />
      </Tabs.Content>
    </Tabs.Root>
  );
}
