import { checkBench } from "./check.ts";
import { engineBench } from "./engine.ts";

engineBench();
checkBench();
