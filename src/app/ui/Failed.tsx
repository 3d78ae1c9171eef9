import { Button } from "./Button.tsx";

/** What could not be done, in a sentence, and a way on. */
export function Failed({ what, error, onRetry }: { what: string; error: string; onRetry: () => void }) {
  return (
    <p role="alert" className="m-0 text-[12.5px] text-urgent">
      {what}: {error}.{" "}
      <Button tone="link" onClick={onRetry}>
        Try again
      </Button>
    </p>
  );
}
