import { ReflectionDesk } from "~/defects/reflection-desk";
import { InspectTabs } from "~/panel/inspect-tabs";
import { usePanel } from "./layout";

export default function ReflectionPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <ReflectionDesk />
    </>
  );
}
