import { Fragment, type ReactNode, useEffect } from "react";
import { useLocation } from "react-router";
import { writeAsIn } from "../api/locale";
import { usePerson } from "../api/person";
import { useSignedOut } from "../api/signedOut";
import { useHabits } from "../open/habits";
import { typedBy } from "../open/typedBy";
import { UNIT_NAMES } from "../open/unitNames";
import { ElsewherePage } from "./ElsewherePage";
import { GuestPage } from "./GuestPage";
import { MailboxPage } from "./MailboxPage";
import { NameGate } from "./NameGate";
import { SignIn } from "./SignIn";
import { useMe, useSigning } from "./useMe";
import { Welcome } from "./Welcome";

/** Lets in who is signed in. Where nobody signs in yet, it asks for a name. */
export function Gate({ children }: { children: ReactNode }) {
  const { data: me } = useMe();
  const { lookWhoIsHere } = useSigning();
  const { pathname } = useLocation();
  const times = useSignedOut((s) => s.times);
  const { name, setName } = usePerson();
  const signed = me?.person?.name;
  const units = me?.person?.units;
  useEffect(() => {
    if (signed !== undefined && signed !== name) setName(signed);
  }, [signed, name, setName]);
  useEffect(() => {
    const wanted = UNIT_NAMES.find((each) => each === units);
    if (wanted) useHabits.setState({ units: wanted });
  }, [units]);
  // Before anything of the page is drawn, so that all of it is written so.
  writeAsIn(me?.person?.language ?? "");
  // The server said that nobody is signed in here any more.
  useEffect(() => {
    if (times > 0) void lookWhoIsHere();
  }, [times, lookWhoIsHere]);
  if (pathname === "/welcome") return <Welcome />;
  if (pathname === "/guest") return <GuestPage />;
  if (pathname === "/elsewhere") return <ElsewherePage />;
  // Who has forgotten their password is not signed in, and in the demo finds the mail here.
  if (pathname === "/mailbox") return <MailboxPage />;
  if (!me) return null;
  if (!me.closed)
    return (
      <>
        <NameGate />
        {children}
      </>
    );
  if (me.person) typedBy(me.person.key);
  // Somebody else begins with a page of their own.
  return me.person ? <Fragment key={me.person.key}>{children}</Fragment> : <SignIn />;
}
