/** Functions that the agent calls, saved before page scripts run: a page that changes prototypes later can't get the agent's port. */
const { apply } = Reflect
const getter = (of: object, name: string) => Object.getOwnPropertyDescriptor(of, name)!.get!
const setter = (of: object, name: string) => Object.getOwnPropertyDescriptor(of, name)!.set!

const post = MessagePort.prototype.postMessage
const setOnMessage = setter(MessagePort.prototype, 'onmessage')
const ports = getter(MessageEvent.prototype, 'ports')
const data = getter(MessageEvent.prototype, 'data')
const source = getter(MessageEvent.prototype, 'source')
const stop = Event.prototype.stopImmediatePropagation

export const postTo = (port: MessagePort, message: unknown): void => apply(post, port, [message])
export const hearFrom = (port: MessagePort, hear: (event: MessageEvent) => void): void => apply(setOnMessage, port, [hear])
export const portsOf = (event: MessageEvent): readonly MessagePort[] => apply(ports, event, []) as readonly MessagePort[]
export const dataOf = (event: MessageEvent): unknown => apply(data, event, [])
export const sourceOf = (event: MessageEvent): unknown => apply(source, event, [])
export const stopHere = (event: Event): void => apply(stop, event, [])
