import { isRouteErrorResponse, Link, useRouteError } from "react-router";
import { Button } from "../ui/Button.tsx";

/** Instead of a page that failed as a whole: what happened, and the ways on. */
export function RouteError() {
  const error = useRouteError();
  if (isRouteErrorResponse(error))
    return <Message title={error.data === "project" ? "There is no such project in this browser." : "There is nothing at this address."} />;
  return (
    <Message title="This page could not be shown.">
      <p className="m-0 text-ink-2">
        What is stored in this browser stays as it is. Load the page again; if it fails again, download what is stored, or open another project. (
        {error instanceof Error ? error.message : String(error)})
      </p>
      <span className="flex gap-2">
        <Button onClick={() => location.reload()}>Load it again</Button>
        <Button onClick={() => void import("./saveRaw.ts").then(({ saveRaw }) => saveRaw())}>Download what is stored</Button>
      </span>
    </Message>
  );
}

/** For an address at which there is nothing. */
export function NoSuchPage() {
  return (
    <Message title="There is nothing at this address.">
      <p className="m-0 text-ink-2">The link may be old, or mistyped.</p>
    </Message>
  );
}

function Message({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-3 p-10">
      <h1 className="caption m-0 text-[16px]">{title}</h1>
      {children}
      <p className="m-0">
        <Link to="/" className="font-semibold text-accent">
          All projects
        </Link>
      </p>
    </main>
  );
}
