// What the ferry line charges, refuses and refunds. Amounts are in hundredths.

export const routes = {
  holm: { name: 'Skerrywick – Holm', adult: 1240, tideBound: false, letter: 'H' },
  farra: { name: 'Skerrywick – Farra', adult: 1860, tideBound: true, letter: 'F' },
  strait: { name: 'Holm – Farra', adult: 920, tideBound: true, letter: 'S' },
};

export const times = ['7:30', '11:00', '15:30', '19:00', '22:10'];

// Height of the tide in metres at Farra harbour for each sailing.
const tides = {
  '2027-06-14': [2.4, 1.8, 1.3, 1.9, 2.6],
  '2027-06-15': [2.2, 1.7, 1.4, 2.0, 2.7],
  '2027-06-16': [2.0, 1.5, 1.6, 2.2, 2.7],
  '2027-06-17': [1.8, 1.4, 1.9, 2.4, 2.5],
  '2027-06-18': [1.6, 1.5, 2.1, 2.6, 2.3],
  '2027-06-19': [1.5, 1.7, 2.4, 2.7, 2.0],
  '2027-06-20': [1.4, 1.9, 2.6, 2.6, 1.8],
};

export const days = Object.keys(tides);
export const bikePrice = 300;
export const seatsOf = (day, time) => (time === '22:10' ? 4 : 60);

export function sailings(route, day) {
  const list = times.map((time, i) => ({
    time,
    tide: tides[day][i],
    cancelled: routes[route].tideBound && tides[day][i] <= 1.8,
    seats: seatsOf(day, time),
  }));
  return list.sort((a, b) => (a.time < b.time ? -1 : 1));
}

export function isIslander(card) {
  return /^HL-\d{4}-\d$/.test(card) && digitSum(card.slice(3, 7)) % 10 === Number(card.slice(8));
}

function digitSum(digits) {
  return [...digits].reduce((sum, d, i) => sum + Number(d) * (i + 1), 0);
}

export function kindOf(age) {
  if (age <= 3) return 'infant';
  if (age <= 16) return 'child';
  return age >= 65 ? 'senior' : 'adult';
}

export function passengerFare(route, passenger) {
  const adult = routes[route].adult;
  const share = { infant: 0, child: 50, adult: 100, senior: 75 }[kindOf(passenger.age)];
  const fare = Math.round((adult * share) / 100);
  return isIslander(passenger.card) ? Math.round(fare * 0.6) : fare;
}

export function vehicleFare(length) {
  if (!length) return 0;
  if (length <= 4) return 3200;
  if (length < 5) return 4100;
  if (length <= 6.5) return 5600;
  return 8800;
}

export function lines(booking) {
  const list = booking.passengers.map((p) => ({
    what: `${p.name || 'Passenger'} (${kindOf(p.age)}${isIslander(p.card) ? ', islander' : ''})`,
    amount: passengerFare(booking.route, p),
  }));
  if (booking.passengers.length >= 7) {
    const sum = list.reduce((s, l) => s + l.amount, 0);
    list.push({ what: 'Group of seven or more, 10 % off', amount: Math.floor(sum * 0.9) - sum });
  }
  if (booking.bikes > 0) {
    const islander = booking.passengers.some((p) => isIslander(p.card));
    list.push({
      what: `${booking.bikes} × bike`,
      amount: Math.round(booking.bikes * bikePrice * (islander ? 0.6 : 1)),
    });
  }
  if (booking.length)
    list.push({ what: `Vehicle of ${booking.length.toFixed(2)} m`, amount: vehicleFare(booking.length) });
  return list;
}

export const totalOf = (booking) => lines(booking).reduce((s, l) => s + l.amount, 0);

// The share that is paid back, by hours of notice.
export function refundShare(hours, cancelled) {
  if (cancelled) return 100;
  if (hours >= 48) return 100;
  return hours > 24 ? 50 : 0;
}

// Route letter, day and month, number of the booking, and a check digit.
export function boardingCode(booking) {
  const body =
    routes[booking.route].letter +
    booking.day.slice(8) +
    booking.day.slice(5, 7) +
    String(booking.number).padStart(3, '0');
  const check = [...body].reduce((s, c, i) => s + c.charCodeAt(0) * (i + 1), 0) % 10;
  return `${body}-${check}`;
}

export const money = (hundredths) => (hundredths / 100).toFixed(2);
