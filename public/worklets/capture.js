// Hands every block of the input to the measuring worker, in pieces of about 20 ms: one array per channel, and the
// number of the first sample by the device's own clock, so that a missing piece is noticed.
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
    if (this.channels && (this.channels.length !== input.length || currentFrame !== this.next)) this.send();
    if (!this.channels) {
      this.channels = input.map(() => new Float32Array(this.frames));
      this.filled = 0;
      this.start = currentFrame;
    }
    input.forEach((samples, c) => this.channels[c].set(samples, this.filled));
    this.filled += input[0].length;
    this.next = currentFrame + input[0].length;
    if (this.filled + input[0].length > this.frames) this.send();
    return true;
  }

  send() {
    const channels = this.channels.map((channel) =>
      this.filled === this.frames ? channel : channel.slice(0, this.filled),
    );
    this.out.postMessage(
      { start: this.start, channels },
      channels.map((channel) => channel.buffer),
    );
    this.channels = null;
  }
}

registerProcessor("unzel-capture", Capture);
