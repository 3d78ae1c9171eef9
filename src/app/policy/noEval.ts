import { config } from "zod";

/** The page's policy lets no text run as code. Zod would try whether it may, which the browser reports; imported first, this keeps it from trying. */
config({ jitless: true });
