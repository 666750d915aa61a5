import { it } from "vitest";
import { followTheScreens } from "./follow-the-screens";
it("f", () => {
  const all = [[{"head.azimuthArcMinutes": 17, "head.resonanceHz": 11000}, {"contact.jumpDb": 2.5, "contact.jumpsPerMinute": 40}], [{"playback.leftT2ErrorPercent": -35, "playback.rightT2ErrorPercent": 40}, {"head.spacingMicrometres": 1.2, "playback.rightT2ErrorPercent": 40}]];
  for (const s of all[0]) {
    const t=Date.now(); console.log(JSON.stringify(s), JSON.stringify(followTheScreens(s as never, 3)), Date.now()-t);
  }
}, 900000);
