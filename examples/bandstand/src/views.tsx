import { type FormEvent, useState } from "react";
import { gigOf, gigs as all, people, seats, tickets, towns } from "./data";
import { events } from "./navigation";
import { type Components, Leg, useFacts, useNavigator } from "./navigation-react";

/** What was typed into a form, by the names of its fields. */
const typed = (event: FormEvent<HTMLFormElement>) => {
  event.preventDefault();
  return new FormData(event.currentTarget);
};

export const views: Components = {
  gigs: ({ town }) => (
    <>
      <h1>What is on</h1>
      <Leg event={events.chooseTown()}>{town ?? "Any town"}</Leg>
      <ul>
        {all
          .filter((gig) => town === undefined || gig.town === town)
          .map((gig) => (
            <li key={gig.id}>
              <Leg event={events.toGig(gig)}>{gig.band}</Leg>
            </li>
          ))}
      </ul>
    </>
  ),
  gig: ({ gigId }) => {
    const nav = useNavigator();
    const gig = gigOf(gigId);
    if (!gig) return <h1>There is no such gig</h1>;
    const similar = all.filter((one) => one.town === gig.town && one.id !== gig.id).slice(0, 3);
    return (
      <>
        <h1>{gig.band}</h1>
        <button type="button" onClick={() => nav.use.gig.buy()}>
          Book a seat
        </button>
        <h2>Also in {gig.town}</h2>
        <ul>
          {similar.map((one) => (
            <li key={one.id}>
              <Leg event={events.toSimilar(one)}>{one.band}</Leg>
            </li>
          ))}
        </ul>
      </>
    );
  },
  tickets: () => {
    const { member } = useFacts();
    if (!member) return <Leg event={events.ticketsSignIn()}>Sign in to see your tickets</Leg>;
    return (
      <>
        <h1>Your tickets</h1>
        <ul>
          {tickets.map((ticket) => (
            <li key={ticket.id}>
              <Leg event={events.toTicket(ticket)}>{ticket.id}</Leg>
            </li>
          ))}
        </ul>
      </>
    );
  },
  ticket: ({ ticketId, gigId }) => (
    <>
      <h1>
        {ticketId}: {gigOf(gigId)?.band}
      </h1>
      <Leg event={events.aboutGig()}>About this gig</Leg>
    </>
  ),
  me: () => (
    <>
      <h1>Me</h1>
      {useFacts().member ? <Leg event={events.signOut()}>Sign out</Leg> : <Leg event={events.meSignIn()}>Sign in</Leg>}
      <Leg event={events.rules()}>Rules of the park</Leg>
    </>
  ),
  town: () => (
    <ul>
      {towns.map((town) => (
        <li key={town.name}>
          <Leg event={events.townPicked(town)}>{town.name}</Leg>
        </li>
      ))}
    </ul>
  ),
  signIn: () => {
    const nav = useNavigator();
    const { tried } = useFacts();
    return (
      <form onSubmit={(event) => nav.use.signIn.go(people.includes(String(typed(event).get("email"))) ? "known" : "not known")}>
        <label>
          E-mail <input name="email" />
        </label>
        {tried && <p role="alert">Nobody is known by that address.</p>}
        <button type="submit">Sign in</button>
      </form>
    );
  },
  seats: () => (
    <ul>
      {seats.map((seat) => (
        <li key={seat.id}>
          <Leg event={events.toPay(seat)}>{seat.id}</Leg>
        </li>
      ))}
    </ul>
  ),
  pay: ({ gigId, seat }) => {
    const nav = useNavigator();
    const [paying, setPaying] = useState(false);
    const pay = async (event: FormEvent<HTMLFormElement>) => {
      const declined = typed(event).get("card") !== "4242";
      setPaying(true);
      await Promise.resolve();
      if (!declined) tickets.push({ id: `Seat ${seat}`, gig: gigId });
      setPaying(false);
      nav.use.pay.pay(declined ? "declined" : "paid");
    };
    return (
      <form onSubmit={pay}>
        <h1>
          Seat {seat}, {gigOf(gigId)?.band}
        </h1>
        <label>
          Card <input name="card" />
        </label>
        <button type="submit" disabled={paying}>
          Pay
        </button>
      </form>
    );
  },
  declined: () => (
    <>
      <h1>The card was declined</h1>
      <Leg event={events.anotherCard()}>Try another card</Leg>
    </>
  ),
  booked: ({ seat }) => (
    <>
      <h1>Seat {seat} is yours</h1>
      <Leg event={events.toTickets()}>To my tickets</Leg>
    </>
  ),
};
