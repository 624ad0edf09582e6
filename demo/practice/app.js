import * as rules from './rules.js';

const page = document.getElementById('page');
const clock = document.getElementById('clock');
const key = 'skerrywick-practice';
const kept = JSON.parse(localStorage.getItem(key) || 'null') || { bookings: [], clock: '2027-06-12T09:00' };
let draft = fresh();
let shownTotal = 0;

clock.value = kept.clock;
clock.addEventListener('change', () => {
  kept.clock = clock.value || kept.clock;
  save();
  draw();
});
document.getElementById('reset').addEventListener('click', () => {
  kept.bookings = [];
  draft = fresh();
  save();
  location.hash = '#/sailing';
  draw();
});

function fresh() {
  return {
    route: 'holm',
    day: rules.days[0],
    time: '',
    passengers: [{ name: '', age: 30, card: '' }],
    bikes: 0,
    length: 0,
    email: '',
  };
}
function save() {
  localStorage.setItem(key, JSON.stringify(kept));
}
function esc(text) {
  const d = document.createElement('i');
  d.textContent = text;
  return d.innerHTML.replace(/"/g, '&quot;');
}
function go(to) {
  location.hash = `#/${to}`;
}
function show(html) {
  page.innerHTML = html;
  page.focus({ preventScroll: true });
}
function at(name) {
  return page.querySelector(`[name="${name}"]`);
}

const pages = {
  sailing() {
    const list = rules.sailings(draft.route, draft.day);
    show(`<h1>Choose a sailing</h1><section><div class="row">
      <label><span>Route</span><select name="route">${Object.entries(rules.routes)
        .map(([id, r]) => `<option value="${id}" ${id === draft.route ? 'selected' : ''}>${r.name}</option>`)
        .join('')}</select></label>
      <label><span>Day</span><select name="day">${rules.days.map((d) => `<option ${d === draft.day ? 'selected' : ''}>${d}</option>`).join('')}</select></label></div>
      <table><thead><tr><th>Sailing</th><th>Tide at Farra</th><th>Seats</th><th></th></tr></thead><tbody>${list
        .map(
          (s) => `<tr><td>${s.time}</td><td>${s.tide.toFixed(2)} m</td><td>${s.seats}</td>
      <td>${s.cancelled ? 'Cancelled: tide too low' : `<button type="button" data-time="${s.time}">Choose ${s.time}</button>`}</td></tr>`,
        )
        .join('')}</tbody></table></section>`);
    for (const name of ['route', 'day'])
      at(name).addEventListener('change', (e) => {
        draft[name] = e.target.value;
        draw();
      });
    page.querySelectorAll('[data-time]').forEach((b) =>
      b.addEventListener('click', () => {
        draft.time = b.dataset.time;
        go('passengers');
      }),
    );
  },

  passengers() {
    if (!draft.time) return go('sailing');
    show(`<h1>Who and what is travelling</h1><p>${rules.routes[draft.route].name}, ${draft.day}, ${draft.time}</p><form>
      ${draft.passengers
        .map(
          (
            p,
            i,
          ) => `<div class="row"><label><span>Name ${i + 1}</span><input name="name${i}" value="${esc(p.name)}"></label>
      <label><span>Age ${i + 1}</span><input type="number" min="0" max="120" name="age${i}" value="${p.age}"></label>
      <label><span>Islander's card ${i + 1}</span><input name="card${i}" value="${esc(p.card)}" placeholder="HL-0000-0"></label></div>`,
        )
        .join('')}
      <p><button type="button" class="plain" id="more">Add a passenger</button> <button type="button" class="plain" id="fewer">Remove the last one</button></p>
      <div class="row"><label><span>Bikes</span><input type="number" min="0" max="9" name="bikes" value="${draft.bikes}"></label>
      <div class="field"><span>Length of the vehicle in metres, 0 for none</span><input type="number" min="0" max="12" step="0.01" name="length" value="${draft.length}"></div>
      <label><span>E-mail</span><input name="email" type="email" value="${esc(draft.email)}"></label></div>
      <table><tbody id="lines"></tbody></table><p class="total">Total <span id="total"></span></p><div id="problem"></div>
      <button type="submit">Go on to payment</button></form>`);
    const form = page.querySelector('form');
    const read = () => {
      draft.passengers.forEach((p, i) => {
        p.name = at(`name${i}`).value;
        p.age = Number(at(`age${i}`).value);
        p.card = at(`card${i}`).value.trim();
      });
      draft.length = Number(at('length').value);
      draft.email = at('email').value;
    };
    const price = (bikesRemoved) => {
      page.querySelector('#lines').innerHTML = rules
        .lines(draft)
        .map((l) => `<tr><td>${esc(l.what)}</td><td class="amount">${rules.money(l.amount)}</td></tr>`)
        .join('');
      if (!bikesRemoved) shownTotal = rules.totalOf(draft);
      page.querySelector('#total').textContent = rules.money(shownTotal);
    };
    form.addEventListener('input', (e) => {
      const before = draft.bikes;
      read();
      draft.bikes = Number(at('bikes').value);
      price(e.target.name === 'bikes' && draft.bikes < before);
    });
    page.querySelector('#more').addEventListener('click', () => {
      read();
      draft.passengers.push({ name: '', age: 30, card: '' });
      draw();
    });
    page.querySelector('#fewer').addEventListener('click', () => {
      read();
      if (draft.passengers.length > 1) draft.passengers.pop();
      draw();
    });
    form.addEventListener('submit', (e) => {
      e.preventDefault();
      read();
      const wrong = problems();
      if (wrong.length) {
        page.querySelector('#problem').innerHTML = wrong
          .map((w) => `<p class="message" role="alert">${w}</p>`)
          .join('');
        return;
      }
      go('pay');
    });
    price(false);
  },

  pay() {
    if (!draft.time) return go('sailing');
    show(`<h1>Pay</h1><section><p>${rules.routes[draft.route].name}, ${draft.day}, ${draft.time}</p>
      <p>${draft.passengers.length} travelling, ${draft.bikes} bikes${draft.length ? `, a vehicle of ${draft.length.toFixed(2)} m` : ''}</p>
      <p class="total">To pay ${rules.money(shownTotal)}</p>
      <p><button type="button" id="pay">Pay now</button> <button type="button" class="plain" id="back">Back</button></p></section>`);
    page.querySelector('#back').addEventListener('click', () => {
      draft.email = '';
      draft.passengers.forEach((p) => {
        p.name = '';
      });
      go('passengers');
    });
    page.querySelector('#pay').addEventListener('click', () => {
      const booking = {
        ...structuredClone(draft),
        paid: shownTotal,
        number: kept.bookings.length + 1,
        state: 'paid',
        boarded: 0,
      };
      booking.code = rules.boardingCode(booking);
      kept.bookings.push(booking);
      save();
      setTimeout(() => {
        go('done');
      }, 900);
    });
  },

  done() {
    const b = kept.bookings.at(-1);
    if (!b) return go('sailing');
    show(
      `<h1>You are booked</h1><section><p>${rules.routes[b.route].name}, ${b.day}, ${b.time}</p><p>Paid ${rules.money(b.paid)}</p><p>Boarding code</p><p class="code">${b.code}</p></section>`,
    );
    draft = fresh();
  },

  booking() {
    show(
      `<h1>My booking</h1><form><label><span>Boarding code</span><input name="code"></label><button type="submit">Find it</button></form><div id="found"></div>`,
    );
    page.querySelector('form').addEventListener('submit', (e) => {
      e.preventDefault();
      const found = kept.bookings.find((b) => b.code === at('code').value.trim().toUpperCase());
      const box = page.querySelector('#found');
      if (!found) {
        box.innerHTML = '<p class="message" role="alert">There is no booking with this code.</p>';
        return;
      }
      drawBooking(box, found);
    });
  },

  board() {
    show(`<h1>Boarding at the quay</h1><form><label><span>Boarding code</span><input name="code"></label><button type="submit">Let on board</button></form><div id="said" role="status"></div>
      <section><h2>On board</h2><p id="count">${kept.bookings.reduce((n, b) => n + b.boarded, 0)} people</p></section>`);
    page.querySelector('form').addEventListener('submit', (e) => {
      e.preventDefault();
      const found = kept.bookings.find((b) => b.code === at('code').value.trim().toUpperCase());
      const said = page.querySelector('#said');
      if (!found) {
        said.innerHTML = '<p class="message">This code is not valid.</p>';
        return;
      }
      if (found.state === 'cancelled') {
        said.innerHTML = '<p class="message">This booking was cancelled.</p>';
        return;
      }
      found.boarded += found.passengers.length;
      save();
      said.innerHTML = `<p class="message good">Welcome on board: ${found.passengers.length} people.</p>`;
      page.querySelector('#count').textContent = `${kept.bookings.reduce((n, b) => n + b.boarded, 0)} people`;
    });
  },

  rules() {
    show(`<h1>Fares and rules</h1><section>
      <p>One way, per adult: Skerrywick – Holm 12.40, Skerrywick – Farra 18.60, Holm – Farra 9.20.</p>
      <p>Up to 3 years free; 4 to 15 half fare; 16 to 64 full fare; from 65 a quarter off.</p>
      <p>An islander's card (HL, four digits, a check digit) takes 40 % off its holder's fare. It does not change bikes or vehicles. A card that is not known is refused with a message.</p>
      <p>Seven people or more: 10 % off all passenger fares together, rounded half up to the hundredth.</p>
      <p>A bike 3.00. A vehicle up to 4.00 m 32.00, over 4.00 to 5.00 m 41.00, over 5.00 to 6.50 m 56.00, over 6.50 to 12.00 m 88.00; longer ones are not taken.</p>
      <p>Sailings to and from Farra need a tide of at least 1.80 m at Farra; others are cancelled. Sailings are listed by time.</p>
      <p>Cancelling pays back everything with 48 hours of notice or more, half with 24 hours or more, nothing after that; everything when the line cancels.</p>
      <p>A boarding code lets its people on board once.</p></section>`);
  },
};

function problems() {
  const wrong = [];
  if (draft.passengers.some((p) => !p.name.trim())) wrong.push('Every passenger needs a name.');
  if (draft.passengers.some((p) => !Number.isInteger(p.age) || p.age < 0 || p.age > 120))
    wrong.push('An age is a whole number from 0 to 120.');
  if (!/^\S+@\S+\.\S+$/.test(draft.email)) wrong.push('An e-mail address is needed for the boarding code.');
  if (draft.length > 12) wrong.push('Vehicles longer than 12.00 m are not taken.');
  if (draft.passengers.length > rules.seatsOf(draft.day, draft.time))
    wrong.push('There are not enough seats on this sailing.');
  return wrong;
}

function drawBooking(box, b) {
  const hours = (new Date(`${b.day}T${b.time.padStart(5, '0')}`) - new Date(kept.clock)) / 3600000;
  const share = rules.refundShare(hours, false);
  box.innerHTML = `<section><p>${rules.routes[b.route].name}, ${b.day}, ${b.time}</p><p>Paid ${rules.money(b.paid)}, ${b.state}</p>
    ${b.state === 'paid' ? `<p>${hours.toFixed(1)} hours of notice: ${share} % back, ${rules.money(Math.round((b.paid * share) / 100))}</p><button type="button" id="cancel">Cancel this booking</button>` : `<p>Paid back ${rules.money(b.refund)}</p>`}</section>`;
  box.querySelector('#cancel')?.addEventListener('click', () => {
    b.state = 'cancelled';
    b.refund = Math.round((b.paid * share) / 100);
    save();
    drawBooking(box, b);
  });
}

function draw() {
  (pages[location.hash.slice(2)] || pages.sailing)();
}
window.addEventListener('hashchange', draw);
draw();
