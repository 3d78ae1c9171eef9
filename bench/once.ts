import { checkOnce } from "./check.ts";

checkOnce(Number(process.argv[2]));
