// Hands every block of the input to the measuring worker, in pieces of about 20 ms, one array per channel.
class Capture extends AudioWorkletProcessor {
  constructor() {
    super();
    this.frames = 1024;
    this.filled = 0;
    this.channels = null;
    this.port.onmessage = ({ data }) => {
      this.out = data;
    };
  }

  process([input]) {
    if (!this.out || input.length === 0) return true;
    if (!this.channels || this.channels.length !== input.length) {
      this.channels = input.map(() => new Float32Array(this.frames));
      this.filled = 0;
    }
    input.forEach((samples, c) => this.channels[c].set(samples, this.filled));
    this.filled += input[0].length;
    if (this.filled >= this.frames) {
      this.out.postMessage(
        this.channels,
        this.channels.map((channel) => channel.buffer),
      );
      this.channels = null;
    }
    return true;
  }
}

registerProcessor("unzel-capture", Capture);
