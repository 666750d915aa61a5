// Plays stereo blocks that arrive on a port and asks for the next one while it has at least two in hand; says when
// the last one has sounded. A block that comes too late is replaced by silence, and that is counted.
class Playback extends AudioWorkletProcessor {
  constructor() {
    super();
    this.blocks = [];
    this.at = 0;
    this.started = false;
    this.ended = false;
    this.late = 0;
    this.gain = 0;
    this.target = 1;
    this.port.onmessage = ({ data }) => {
      if (data.source) {
        this.source = data.source;
        this.source.onmessage = ({ data: message }) => {
          if (message === null) this.ended = true;
          else this.blocks.push(message);
        };
        for (let i = 0; i < 4; i++) this.source.postMessage("more");
      }
      if (data.gain !== undefined) this.target = data.gain;
    };
  }

  process(_inputs, [[left, right]]) {
    for (let i = 0; i < left.length; i++) {
      const block = this.blocks[0];
      if (!block) {
        if (this.ended) {
          this.port.postMessage({ done: true, late: this.late });
          return false;
        }
        if (this.started) this.late++;
        continue;
      }
      this.started = true;
      this.gain += 0.001 * (this.target - this.gain);
      left[i] = this.gain * block[0][this.at];
      if (right) right[i] = this.gain * block[1][this.at];
      if (++this.at === block[0].length) {
        this.blocks.shift();
        this.at = 0;
        this.source.postMessage("more");
      }
    }
    return true;
  }
}

registerProcessor("unzel-playback", Playback);
