/** The spare-parts box of the demo workshop, as it would be imported. */
export const DEMO_SPARES = `name,kind,count,place
"belt 66 mm, square 1.2",belt,3,drawer 2
"belt 78 mm, square 1.2",belt,0,drawer 2
"belt 95 mm, flat 4 × 0.6",belt,2,drawer 3
"idler tyre 9.5 × 6 × 2 mm",tyre,6,drawer 3
"idler tyre 12 × 8 × 2 mm",tyre,1,drawer 3
"pinch roller 13 × 7.5 mm",pinch roller,2,drawer 5
"clip 2 mm",clip,40,lid
"clip 3 mm",clip,25,lid
"battery contact spring, pair",spring,4,drawer 6
"M2.6 × 6, pan",screw,60,lid
"10 µF 25 V",capacitor,30,drawer 8
"47 µF 16 V",capacitor,18,drawer 8
"lamp 6 V 40 mA",lamp,2,drawer 7
`;
