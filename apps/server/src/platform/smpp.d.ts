/** What is used of the package, which has no types of its own. */
declare module 'smpp' {
  import type { EventEmitter } from 'node:events';
  import type { Server } from 'node:net';

  export interface Pdu {
    command: string;
    command_status: number;
    sequence_number: number;
    esm_class: number;
    source_addr: string;
    source_addr_ton: number;
    destination_addr: string;
    message_id: string;
    data_coding: number;
    short_message?: { message: string | Buffer; udh?: Buffer[] };
    message_payload?: { message: string | Buffer } | string;
    receipted_message_id?: string;
    message_state?: number;
    network_error_code?: Buffer | string;
    response(fields?: object): Pdu;
  }

  export class Session extends EventEmitter {
    socket: { writable: boolean };
    send(pdu: Pdu, answered?: (pdu: Pdu) => void): boolean;
    bind_transmitter(fields: object, answered: (pdu: Pdu) => void): boolean;
    bind_receiver(fields: object, answered: (pdu: Pdu) => void): boolean;
    submit_sm(fields: object, answered: (pdu: Pdu) => void): boolean;
    deliver_sm(fields: object, answered?: (pdu: Pdu) => void): boolean;
    enquire_link(fields?: object, answered?: (pdu: Pdu) => void): boolean;
    unbind(fields?: object, answered?: (pdu: Pdu) => void): boolean;
    close(done?: () => void): void;
    destroy(done?: () => void): void;
  }

  export function connect(options: { url: string }, connected?: () => void): Session;
  export function createServer(listener: (session: Session) => void): Server & { sessions: Session[] };
}
