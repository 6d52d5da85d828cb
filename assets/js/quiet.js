// Alpine reads every global once to know them; the browser complains about those it is to lose, which nobody here uses.
Object.getOwnPropertyNames(globalThis).filter((name) => /fenc/i.test(name)).forEach((name) => { delete globalThis[name]; });
