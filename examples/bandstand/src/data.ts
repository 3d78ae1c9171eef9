/** What the park's server would say. */
export const gigs = Array.from({ length: 60 }, (_, i) => ({
  id: `g${i + 1}`,
  band: `${["Tin", "Slow", "Brass", "Paper"][i % 4]} ${["Larks", "Ferry", "Moths"][i % 3]} ${i + 1}`,
  town: i % 2 === 0 ? "Wexcombe" : "Abbotsmere",
}));
export const towns = [{ name: "Wexcombe" }, { name: "Abbotsmere" }];
export const seats = [{ id: "A1" }, { id: "A2" }, { id: "B1" }];
export const tickets: Array<{ id: string; gig: string }> = [];
export const people = ["ida@park.example"];

export const gigOf = (id: string) => gigs.find((gig) => gig.id === id);
