import { useState } from "react";
import * as z from "zod";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";

const Left = z.object({ addresses: z.array(z.string()) });

/** Leaves a prototype with the server that this page came from, and says where a phone finds it. */
export function OnPhone({ text }: { text: string }) {
  const [said, setSaid] = useState<{ addresses: string[] } | { error: string }>();
  const leave = async () => {
    const answer = await fetch("/preview", { method: "POST", body: text }).catch(() => undefined);
    if (!answer?.ok) return setSaid({ error: answer ? await answer.text() : "The server does not answer; is it still running?" });
    const read = Left.safeParse(await answer.json());
    setSaid(read.success ? read.data : { error: "The server answered with something else than addresses." });
  };
  return (
    <>
      <Button onClick={() => void leave()}>On a phone…</Button>
      {said && (
        <Dialog title="On a phone" open onClose={() => setSaid(undefined)}>
          {"error" in said ? (
            <p role="alert" className="m-0 text-[13px]">
              {said.error}
            </p>
          ) : (
            <>
              <p className="m-0 text-[13px]">Open this address there, as long as the server runs:</p>
              {said.addresses.map((address) => (
                <p key={address} className="m-0 mt-2 font-mono text-[13px] break-all">
                  <a href={address} target="_blank" rel="noreferrer">
                    {address}
                  </a>
                </p>
              ))}
              {said.addresses.every((address) => /\/\/(127\.|localhost)/.test(address)) && (
                <p className="m-0 mt-3 text-[12.5px] text-ink-2">
                  The server serves this machine alone. For a phone in the same network start it with <code>npx etape serve --lan</code>.
                </p>
              )}
            </>
          )}
        </Dialog>
      )}
    </>
  );
}
