/**
 * The sheet is paper: it carries its own style, so that the page, the print and the exported file are one and
 * the same and need nothing else.
 */
export const SHEET_STYLE = `
.sheet { --ink:#20262e; --soft:#535b66; --line:#c9c0b0; --oxide:#7c3f22; --pass:#35692d; --close:#7f5200; --fail:#b02a1c; --window:#d9e8cd;
  font-family:"Atkinson Hyperlegible Next Variable","Atkinson Hyperlegible Next",system-ui,sans-serif; color:var(--ink); background:#fff; font-size:14px; line-height:1.4;
  max-width:190mm; margin:0 auto; padding:10mm 12mm; box-sizing:border-box; }
.sheet h1 { font-size:22px; margin:0; } .sheet h2 { font-size:15px; margin:18px 0 4px; border-bottom:1.5px solid var(--ink); padding-bottom:2px; }
.sheet .head { display:flex; justify-content:space-between; align-items:baseline; gap:16px; flex-wrap:wrap; }
.sheet .soft { color:var(--soft); } .sheet dl { display:grid; grid-template-columns:max-content 1fr; gap:1px 14px; margin:8px 0; } .sheet dt { color:var(--soft); } .sheet dd { margin:0; overflow-wrap:anywhere; white-space:pre-wrap; }
.sheet table { width:100%; border-collapse:collapse; margin:6px 0; } .sheet th { text-align:left; font-weight:600; color:var(--soft); font-size:12.5px; }
.sheet td,.sheet th { padding:3px 8px 3px 0; border-bottom:1px solid var(--line); vertical-align:baseline; } .sheet td.figure { font-variant-numeric:tabular-nums; white-space:nowrap; }
.sheet tr.deciding td { font-weight:700; } .sheet .pass { color:var(--pass); } .sheet .close { color:var(--close); } .sheet .fail { color:var(--fail); }
.sheet .overall { border:2px solid currentColor; border-radius:6px; padding:2px 12px; font-weight:700; font-size:16px; }
.sheet .warn { color:var(--close); font-weight:600; } .sheet ul { margin:4px 0; padding-left:18px; } .sheet section { break-inside:avoid; }
.sheet .sign { display:flex; gap:30px; margin-top:36px; } .sheet .sign div { flex:1; border-top:1px solid var(--ink); padding-top:3px; color:var(--soft); font-size:12px; }
.sheet .owner .tapes { display:grid; grid-template-columns:repeat(auto-fit,minmax(75mm,1fr)); gap:6px 18px; } .sheet .owner .tape { break-inside:avoid; border:1.5px solid var(--line); border-radius:6px; padding:6px 10px; }
.sheet .owner h3 { font-size:14.5px; margin:0; } .sheet .owner p { margin:4px 0; } .sheet .owner .knobs { display:flex; gap:14px; margin:4px 0; } .sheet .owner .knobs > div { max-width:36mm; }
.sheet .for-owner { font-size:16.5px; line-height:1.5; break-after:page; } .sheet .for-owner h2 { font-size:18px; } .sheet .for-owner .pictures { display:flex; gap:8px; margin:8px 0; flex-wrap:wrap; } .sheet .for-owner img { height:44mm; max-width:100%; border:1px solid var(--line); } .sheet .for-owner h3 { font-size:16.5px; margin:10px 0 2px; }
.sheet svg text { font-family:inherit; }
@page { margin:12mm; }
@media print { .sheet { padding:0; max-width:none; } .no-print { display:none !important; } body { background:#fff !important; } }
`;
