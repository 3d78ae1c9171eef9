import { checkOnce } from "./check.ts";

checkOnce(process.argv[2] ?? "", Number(process.argv[3]));
