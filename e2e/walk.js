// The world around sessions, simulated: a server that answers late, twice or never, a browser's
// storage, and several tabs on one piece. It follows a list of doings and writes down what happened.
// What may happen and what must hold is for the test to say.
(() => {
  const { begin, next, unsaved, written } = modules;
  const ID = 7;
  const clone = (x) => JSON.parse(JSON.stringify(x));

  globalThis.walk = (doings, fields) => {
    const piece = (v) => ({ format: "rutile/piece", version: 1, name: "Chest", zones: v.map((name, i) => ({ id: `z${i}`, substrate: "oak", name })), parts: [{ kind: "top", width_cm: 10 }] });
    const server = { rev: 1, doc: piece(Array(fields).fill("")), removed: false };
    const log = [];
    const names = (p) => p.zones.map((z) => z.name);
    const drafts = new Map(); // by tab
    const typedKept = new Map(); // by tab: sessionStorage
    const undo = new Map(); // by tab
    let now = 1e6;
    const tabs = [];

    const open = (name) => {
      const tab = { name, live: true, wait: undefined, calls: [], again: [], session: undefined };
      const at = tabs.findIndex((t) => t.name === name);
      if (at >= 0) tabs[at] = tab;
      else tabs.push(tab);
      const [s, commands] = begin(ID);
      tab.session = s;
      run(tab, commands);
      return tab;
    };
    const send = (tab, e) => {
      const before = tab.session;
      const [s, commands] = next(before, e);
      tab.session = s;
      run(tab, commands);
      if (s.state.is !== before.state.is) log.push({ state: [before.state.is, e.type, s.state.is] });
    };
    const run = (tab, commands) => {
      for (const c of commands) {
        switch (c.do) {
          case "wait":
            tab.wait = now + c.ms;
            break;
          case "tell":
            for (const t of tabs) if (t !== tab && t.live) send(t, { type: "told", rev: c.rev });
            // What a closed tab has left is looked at as well.
            if (left(tab).length) tab.calls.push({ c: { do: "adopt" } });
            break;
          case "keep draft":
            drafts.set(tab.name, clone(c.draft));
            break;
          case "forget draft":
            drafts.delete(tab.name);
            break;
          case "keep history":
            undo.set(tab.name, { head: written(c.piece), history: clone(c.history) });
            break;
          case "keep typed":
            typedKept.set(tab.name, clone(c.typed));
            break;
          case "ask again":
            tab.again.push(c.key);
            break;
          default: // a question to the server
            tab.calls.push({ c: clone(c), done: false });
        }
      }
    };
    const left = (tab) => [...drafts].filter(([name]) => name !== tab.name && !tabs.some((t) => t.live && t.name === name));
    const adopted = (tab) => {
      if (drafts.has(tab.name)) return clone(drafts.get(tab.name));
      for (const [name, d] of left(tab)) {
        drafts.delete(name);
        drafts.set(tab.name, d);
        log.push({ adopts: [tab.name, name] });
        return clone(d);
      }
      return undefined;
    };

    // What the server does with a question, and the event of its answer.
    const serve = (tab, c) => {
      const gone = server.removed;
      const saved = () => ({ id: ID, rev: server.rev, created: "then", piece: clone(server.doc) });
      switch (c.do) {
        case "load": {
          if (gone) return () => ({ type: "not loaded", why: "no such piece", status: 404, left: adopted(tab) });
          const s = saved();
          return () => {
            const left = adopted(tab);
            const on = left?.piece ?? s.piece;
            const heads = [undo.get(tab.name), ...undo.values()].filter((u) => u?.head === written(on));
            const history = heads[0] && clone(heads[0].history);
            return { type: "loaded", saved: s, left, history, typed: clone(typedKept.get(tab.name) ?? []) };
          };
        }
        case "save": {
          if (gone) return () => ({ type: "not stored", why: "no such piece", status: 404 });
          if (c.piece.zones.some((z) => z.name.startsWith("bad"))) return () => ({ type: "not stored", why: "no", status: 422 });
          if (written(server.doc) === written(c.piece)) {
            const rev = server.rev;
            return () => ({ type: "stored", rev });
          }
          if (c.rev !== server.rev) return () => ({ type: "not stored", why: "changed", status: 409, changes: ["something"] });
          log.push({ save: tab.name, base: names(server.doc), doc: names(c.piece) });
          server.rev++;
          server.doc = clone(c.piece);
          const rev = server.rev;
          return () => ({ type: "stored", rev });
        }
        case "look": {
          if (gone) return () => ({ type: "not seen", since: c.rev, status: 404 });
          const s = saved();
          return () => ({ type: "seen", since: c.rev, saved: s, changes: s.rev === c.rev ? [] : ["something"] });
        }
        case "adopt": {
          const s = saved();
          return () => {
            if (gone || tab.session.state.is !== "saved" || tab.session.rev !== s.rev) return undefined;
            const d = adopted(tab);
            return d && { type: "loaded", saved: s, left: d };
          };
        }
        case "fetch": {
          if (gone) return () => ({ type: "not fetched", why: "no such piece", status: 404 });
          const s = saved();
          return () => ({ type: "fetched", saved: s });
        }
        case "add":
          if (c.piece.zones.some((z) => z.name.startsWith("bad"))) return () => ({ type: "not added", why: "no" });
          // Put back, it is another piece, with another number.
          log.push({ added: tab.name, doc: names(c.piece) });
          return () => ({ type: "added", id: ID + 1 });
        case "read": {
          const { key, typed: t } = c;
          const at = () => ({ key, text: t.text, at: now });
          if (!/^\d+$/.test(t.text)) return () => ({ type: "not read", ...at(), why: "it cannot be read" });
          const value = "zone" in t.place ? JSON.stringify(Number(t.text)) : undefined;
          return () => ({ type: "read", ...at(), value });
        }
      }
    };
    const silence = (c) => {
      switch (c.do) {
        case "load":
          return { type: "not loaded", why: "the server does not answer" };
        case "save":
          return { type: "not stored", why: "the server does not answer" };
        case "look":
          return { type: "not seen", since: c.rev };
        case "fetch":
          return { type: "not fetched", why: "the server does not answer" };
        case "add":
          return { type: "not added", why: "the server does not answer" };
        case "read":
          return { type: "not read", key: c.key, text: c.typed.text, at: now };
      }
    };
    // how: answered, lost on its way, or done with its answer lost.
    const deliver = (tab, how) => {
      const call = tab.calls.shift();
      if (!call) return;
      const answer = how === "lost" ? undefined : serve(tab, call.c);
      if (!tab.live && call.c.do !== "save") return;
      const e = how === "answered" ? answer() : silence(call.c);
      if (tab.live) {
        if (e) send(tab, e);
      } else if (how === "answered" && e.type === "stored") {
        // A closed tab that hears of its save forgets its draft, where that is still what was sent.
        if (written(drafts.get(tab.name)?.piece) === written(call.c.piece)) drafts.delete(tab.name);
      }
    };
    const undone = new WeakMap(); // histories, read
    const states = (h) => {
      if (!undone.has(h)) undone.set(h, [...h.past, ...h.future].map((p) => names(JSON.parse(p))));
      return undone.get(h);
    };
    let last = {};
    /** What has changed since it was last written down. */
    const show = () => {
      const changed = tabs.filter((t) => t.live && t.session !== t.logged);
      const at = changed.map((t) => {
        t.logged = t.session;
        const s = t.session;
        return { tab: t.name, is: s.state.is, names: s.piece && names(s.piece), undo: states(s.history), typed: Object.values(s.typed).map((x) => ({ zone: x.place.zone, text: x.text, is: x.is })), areas: s.piece?.zones.map((z) => z.area_m2 ?? 0), unsaved: unsaved(s) };
      });
      const open = tabs.filter((t) => t.live).map((t) => t.name);
      const now = {
        open,
        drafts: [...drafts.values()].map((d) => names(d.piece)),
        undo: [...undo.values()].flatMap((u) => states(u.history)),
        areas: server.removed ? undefined : server.doc.zones.map((z) => z.area_m2 ?? 0),
      };
      const out = { at };
      for (const [k, v] of Object.entries(now)) {
        const text = JSON.stringify(v);
        if (last[k] !== text) out[k] = v;
        last[k] = text;
      }
      log.push(out);
    };
    const rename = (p, i, name) => ({ ...p, zones: p.zones.map((z, j) => (j === i ? { ...z, name } : z)) });

    open("a");
    for (const d of doings) {
      const tab = tabs.find((t) => t.name === d.tab && t.live);
      now += d.ms ?? 10;
      log.push({ do: d });
      switch (d.do) {
        case "edit":
          if (tab?.session.piece) send(tab, { type: "edited", piece: rename(tab.session.piece, d.field, d.text), at: now });
          break;
        case "undo":
        case "redo":
          if (tab) send(tab, { type: d.do === "undo" ? "undone" : "redone" });
          break;
        case "type":
          if (tab?.session.piece) send(tab, { type: "typed", place: { zone: `z${d.field}` }, text: d.text, before: undefined });
          break;
        case "empty":
          if (tab?.session.piece) send(tab, { type: "emptied", place: { zone: `z${d.field}` }, at: now });
          break;
        case "settle":
          if (tab) send(tab, { type: "settle", keep: d.keep });
          break;
        case "put back":
          if (tab) send(tab, { type: "put back" });
          break;
        case "time":
          for (const t of tabs) {
            if (!t.live) continue;
            if (t.wait !== undefined && t.wait <= now) {
              t.wait = undefined;
              send(t, { type: "quiet" });
            }
            for (const key of t.again.splice(0)) send(t, { type: "ask again", key });
          }
          break;
        case "tick":
          if (tab) send(tab, { type: "tick" });
          break;
        case "answered":
        case "lost":
        case "unheard": {
          const t = tabs.find((x) => x.name === d.tab);
          if (t) deliver(t, d.do);
          break;
        }
        case "reload":
          if (tab) {
            tab.live = false;
            // What is on its way arrives, or does not; nobody hears.
            for (const call of tab.calls.splice(0)) if (call.c.do === "save" && d.arrives) serve(tab, call.c);
            open(tab.name);
          }
          break;
        case "close":
          if (tab) tab.live = false;
          typedKept.delete(d.tab);
          break;
        case "open":
          if (!tabs.some((t) => t.name === d.tab && t.live)) {
            const old = tabs.find((t) => t.name === d.tab);
            if (old) old.calls = [];
            open(d.tab);
          }
          break;
        case "heal": // the server answers, time goes on, and whatever asks the painter is settled
          for (let n = 0; tab && n < 12; n++) {
            while (tab.calls.length) {
              deliver(tab, "answered");
              show();
            }
            if (["over", "refused"].includes(tab.session.state.is)) break;
            now += 5000;
            if (tab.wait !== undefined) send(tab, { type: "quiet" });
            tab.wait = undefined;
            for (const key of tab.again.splice(0)) send(tab, { type: "ask again", key });
            if (n % 3 === 2) send(tab, { type: "tick" });
            send(tab, { type: "settle", keep: true });
            send(tab, { type: "put back" });
            show();
            if (n > 3 && !tab.calls.length && ["saved", "missing"].includes(tab.session.state.is)) break;
          }
          break;
        case "remove":
          server.removed = true;
          break;
      }
      show();
    }
    return { log };
  };
})();
