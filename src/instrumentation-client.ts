import "@/workers/without-eval";
