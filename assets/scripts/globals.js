// Alpine reads every global once, to keep expressions from them: on a phone that is half of the time until keys work,
// and browsers report some of them as deprecated. While it is loaded it is shown those through which something could be
// done: the page itself and functions, not the interfaces of the platform. Imported before Alpine.
const names = Object.getOwnPropertyNames;
const page = [
    'window',
    'self',
    'globalThis',
    'top',
    'parent',
    'frames',
    'document',
    'location',
    'navigator',
    'Function',
];

Object.getOwnPropertyNames = (of) =>
    of === globalThis
        ? [
              ...page,
              ...names(of).filter(
                  (name) => /^[a-z]/.test(name) && Object.getOwnPropertyDescriptor(of, name).value instanceof Function,
              ),
          ]
        : names(of);

export function showGlobals() {
    Object.getOwnPropertyNames = names;
}
