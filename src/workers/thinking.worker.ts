import "./without-eval";
import * as Comlink from "comlink";
import { think } from "@/core/advice/thinking";

export interface ThinkingApi {
  think: typeof think;
}

const api: ThinkingApi = { think };

Comlink.expose(api);
