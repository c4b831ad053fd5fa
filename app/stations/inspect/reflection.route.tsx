import { ReflectionDesk } from "./reflection.desk";
import { InspectTabs } from "./tabs";
import { usePanel } from "~/kit/panel/use-panel";

export default function ReflectionPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <ReflectionDesk />
    </>
  );
}
