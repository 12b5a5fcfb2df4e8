import { Retries } from "../../api/retries";
import { useSignedOut } from "../../api/signedOut";
import { offerToTests } from "../../stage/testHooks";

/** Codes with which the server refuses for good: the project is gone, or this page is a stranger. */
const REFUSED: readonly number[] = [4404, 1008];
/** The code for that one is signed in no more. */
const SIGNED_OUT = 4401;

/** A line to the others who have a project open; where it is lost it comes back by itself. */
export class Line {
  private socket: WebSocket | null = null;
  private closed = false;
  private readonly retries = new Retries(() => this.open());

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
      this.retries.connected();
      this.on.there(true);
    };
    socket.onmessage = (event: MessageEvent<string>) => this.on.heard(JSON.parse(event.data));
    socket.onclose = (event) => {
      this.socket = null;
      if (this.closed) return;
      this.on.there(false);
      if (event.code === SIGNED_OUT) useSignedOut.getState().note();
      if (!REFUSED.includes(event.code)) this.retries.later();
    };
  }

  /** Tell the others; what cannot be told now is not told later, since it would be old by then. */
  tell(said: object): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(said));
  }

  /** Lose the line, as a network does; for finding faults. */
  lose(): void {
    this.socket?.close();
  }

  close(): void {
    this.closed = true;
    this.retries.end();
    this.socket?.close();
  }
}
