import "./without-eval";
import { think } from "@/core/advice/thinking";
import { serve } from "./serve";

export interface ThinkingApi {
  think: typeof think;
}

const api: ThinkingApi = { think };

serve(api);
