import { config } from "zod";

// schemas would be compiled with eval, which the content policy forbids; imported before anything is parsed
config({ jitless: true });
