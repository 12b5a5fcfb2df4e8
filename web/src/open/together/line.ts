import { offerToTests } from "../../stage/testHooks";

const FIRST_MS = 500;
const LONGEST_MS = 4000;

/** A line to the others who have a project open; where it is lost it comes back by itself. */
export class Line {
  private socket: WebSocket | null = null;
  private pause = FIRST_MS;
  private timer = 0;
  private closed = false;

  constructor(
    private readonly address: string,
    private readonly on: {
      heard(said: unknown): void;
      /** The line is there, or was lost. */
      there(there: boolean): void;
    },
  ) {
    offerToTests("line", this);
    this.open();
  }

  private open(): void {
    const socket = new WebSocket(this.address);
    this.socket = socket;
    socket.onopen = () => {
      this.pause = FIRST_MS;
      this.on.there(true);
    };
    socket.onmessage = (event: MessageEvent<string>) => this.on.heard(JSON.parse(event.data));
    socket.onclose = (event) => {
      this.socket = null;
      if (this.closed) return;
      this.on.there(false);
      // Refused for good: the project is gone, or this page is a stranger.
      if (event.code === 4404 || event.code === 1008) return;
      this.timer = window.setTimeout(() => this.open(), this.pause);
      this.pause = Math.min(LONGEST_MS, this.pause * 2);
    };
  }

  /** Tell the others; what cannot be told now is not told later, since it would be old by then. */
  tell(said: object): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(said));
  }

  /** Lose the line, as a network does; for whoever looks for a fault. */
  lose(): void {
    this.socket?.close();
  }

  close(): void {
    this.closed = true;
    window.clearTimeout(this.timer);
    this.socket?.close();
  }
}
