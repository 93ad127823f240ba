package knollfield.app.job;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.parts.PartsSupplier;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.bundle.BundlePlan;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import knollfield.core.bundle.School;
import knollfield.core.bundle.Sixtieths;
import knollfield.core.due.JobStage;
import knollfield.core.due.Status;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** A job as the builder shows it: lines with their money and parts, schools, labour, place. */
@Component
class JobViews {

    private final Jobs jobs;
    private final JobBuilds builds;
    private final People people;
    private final WorkshopSettings settings;
    private final EngineBook book;
    private final Catalogue catalogue;
    private final PartsSupplier supplier;
    private final WorkshopClock clock;
    private final Words words;

    JobViews(
            Jobs jobs,
            JobBuilds builds,
            People people,
            WorkshopSettings settings,
            EngineBook book,
            Catalogue catalogue,
            PartsSupplier supplier,
            WorkshopClock clock,
            Words words) {
        this.jobs = jobs;
        this.builds = builds;
        this.people = people;
        this.settings = settings;
        this.book = book;
        this.catalogue = catalogue;
        this.supplier = supplier;
        this.clock = clock;
        this.words = words;
    }

    record DecisionIn(
            boolean in, @Nullable String reason, @Nullable String inspection) {}

    record BookingView(
            long technicianId,
            String technician,
            long bayId,
            String bay,
            LocalDateTime start,
            LocalDateTime end,
            boolean promised) {}

    /**
     * A part that can be fitted.
     *
     * @param per10000KmMinor price and its share of labour for each 10,000 km; null where its life is not known
     * @param stock at the supplier
     * @param here the day it is here if ordered today
     * @param misfits what does not agree with the book's own part
     */
    record OfferView(
            String number,
            String name,
            Grade.Kind grade,
            String gradeWords,
            long priceMinor,
            @Nullable Integer expectedKm,
            @Nullable Long per10000KmMinor,
            int stock,
            LocalDate here,
            List<String> misfits) {}

    /**
     * A line of the job; money in minor units before tax.
     *
     * @param included it is in the job as built
     * @param onCard it is on the card of a job at the bench
     * @param minutes what it adds
     * @param nowMinor price it adds, or would add
     * @param laterMinor what leaving it is expected to cost until the next opening; null where nobody can say
     * @param savingMinor what doing it now saves; below zero where leaving it is cheaper
     * @param reusable required, but may be left with a reason and an inspection
     * @param schools that take it in
     */
    record LineView(
            String code,
            String name,
            BundleLine.Kind kind,
            BundleLine.Rule rule,
            boolean included,
            boolean onCard,
            boolean reusable,
            boolean ownerSupplied,
            int minutes,
            long partsMinor,
            long nowMinor,
            @Nullable Long laterMinor,
            @Nullable Long savingMinor,
            @Nullable LocalDate limitOn,
            Set<School> schools,
            @Nullable DecisionIn decision,
            @Nullable String part,
            List<OfferView> offers,
            String reason) {}

    /** What a school would do, without a person's decisions. */
    record SchoolView(School school, String words, int minutes, long nowMinor, long laterMinor) {}

    record ChoiceView(String code, String name) {}

    record VariantView(
            String code,
            String name,
            String howToTell,
            @Nullable String settled,
            List<ChoiceView> choices) {}

    record NamedItem(String code, String name) {}

    /**
     * @param school in force for this job
     * @param ownSchool true where it is not the workshop's
     * @param until why money is counted until then
     * @param laterOn when what is left and falls due is done together
     */
    record BuildView(
            School school,
            boolean ownSchool,
            School.Seals seals,
            boolean ownSeals,
            Set<String> purpose,
            String drive,
            List<NamedItem> purposes,
            @Nullable LocalDate keptUntil,
            LocalDate nextOpening,
            String until,
            @Nullable LocalDate laterOn,
            List<SchoolView> schools,
            List<VariantView> variants,
            long toolHireMinor,
            int bookVersion,
            int newestBook,
            List<String> remarks) {}

    record ActualView(int minutes, long partsMinor) {}

    record AccessStepView(String code, String title, int minutes, int helperMinutes, List<String> neededBy) {}

    /** @param inspection what is looked at where nothing is opened, in its order; null for every other job */
    record JobView(
            long id,
            int version,
            JobStage stage,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            String ownerPhone,
            @Nullable String fleet,
            String family,
            Drive drive,
            Interference interference,
            Status status,
            @Nullable LocalDate actBy,
            BuildView build,
            List<LineView> lines,
            List<AccessStepView> steps,
            int minutes,
            int sharedMinutes,
            int helperMinutes,
            long partsMinor,
            long labourMinor,
            long totalMinor,
            long labourRateMinor,
            @Nullable BookingView booking,
            @Nullable List<String> inspection,
            @Nullable Long reworkOf,
            @Nullable LocalDate completedOn,
            @Nullable ActualView actual) {}

    /** The whole of a job. */
    JobView view(Job job) {
        VehicleState state = jobs.state(job);
        Vehicle v = state.history().vehicle();
        EngineFamily family = jobs.family(job);
        BundlePlan plan = builds.plan(job);
        Bundle bundle = plan.bundle();
        Workshop workshop = settings.get();
        long parts = bundle.partsMinor();
        int minutes = job.scope().inspectionMinutes().orElse(bundle.labour().minutes());
        long labour = Sixtieths.toMinor(Sixtieths.ofLabour(minutes, workshop.labourRateMinor()));
        return new JobView(
                job.id(),
                job.version(),
                job.stage(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(f -> f.name()).orElse(null),
                family.name(),
                family.drive(),
                family.interference(),
                state.forecast().status(),
                state.forecast().actBy().orElse(null),
                build(job, family, plan),
                lines(job, family, plan),
                bundle.labour().steps().stream()
                        .map(s -> new AccessStepView(
                                s.step().code(),
                                s.step().title(),
                                s.step().minutes(),
                                s.step().helperMinutes(),
                                List.copyOf(s.neededBy())))
                        .toList(),
                minutes,
                bundle.labour().sharedMinutes(),
                bundle.labour().helperMinutes(),
                parts,
                labour,
                parts + labour,
                workshop.labourRateMinor(),
                booking(job, technicians(), bays()),
                job.scope().isInspection() ? builds.looks(job) : null,
                job.rework().map(Job.Rework::of).orElse(null),
                job.done().map(Job.Done::on).orElse(null),
                job.actual()
                        .map(a -> new ActualView(a.minutes(), a.partsMinor()))
                        .orElse(null));
    }

    private BuildView build(Job job, EngineFamily family, BundlePlan plan) {
        Workshop workshop = settings.get();
        JobScope scope = job.scope();
        return new BuildView(
                scope.school().orElse(workshop.school()),
                scope.school().isPresent(),
                scope.seals().orElse(workshop.seals()),
                scope.seals().isPresent(),
                scope.purpose(),
                family.driveItem().code(),
                family.items().stream()
                        .filter(i -> i.kind().carriesTheDrive())
                        .map(i -> new NamedItem(i.code(), i.name()))
                        .toList(),
                scope.keptUntil().orElse(null),
                plan.nextOpening(),
                words.write(plan.whyThen(), workshop.currency()),
                plan.laterOn().orElse(null),
                plan.schools().stream()
                        .map(o -> new SchoolView(
                                o.school(), o.school().words(), o.minutes(), o.nowMinor(), o.laterMinor()))
                        .toList(),
                family.variants().stream()
                        .map(x -> new VariantView(
                                x.code(),
                                x.name(),
                                x.howToTell(),
                                scope.variants().get(x.code()),
                                x.choices().stream()
                                        .map(c -> new ChoiceView(c.code(), c.name()))
                                        .toList()))
                        .toList(),
                scope.toolHireMinor(),
                job.familyVersion(),
                book.find(job.familyCode()).map(VersionedFamily::version).orElse(job.familyVersion()),
                family.remarks().stream().map(BookFault::words).toList());
    }

    private List<LineView> lines(Job job, EngineFamily family, BundlePlan plan) {
        List<CatalogPart> catalogued = catalogue.ofFamily(job.familyCode());
        Map<String, PartsSupplier.Quote> quotes = supplier.ask(catalogued, clock.today()).stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, q -> q));
        Map<String, BundlePlan.Line> money = plan.byCode();
        Workshop workshop = settings.get();
        return plan.bundle().lines().stream()
                .map(l -> {
                    BundlePlan.Line m = l.kind() == BundleLine.Kind.ITEM ? money.get(l.code()) : null;
                    long share = Sixtieths.toMinor(Sixtieths.ofLabour(l.marginalMinutes(), workshop.labourRateMinor()));
                    return new LineView(
                            l.code(),
                            l.name(),
                            l.kind(),
                            l.rule(),
                            l.included(),
                            job.items().isEmpty() || job.items().contains(l.code()),
                            m != null && m.reusable(),
                            job.scope().ownerSupplied().contains(l.code()),
                            l.marginalMinutes(),
                            l.partsMinor(),
                            m == null ? l.partsMinor() : m.nowMinor(),
                            m == null || !m.priced() ? null : m.laterMinor(),
                            m == null || !m.priced() ? null : m.savingMinor(),
                            m == null ? null : m.limitOn().orElse(null),
                            plan.schools().stream()
                                    .filter(o -> o.items().contains(l.code()))
                                    .map(BundlePlan.OfSchool::school)
                                    .collect(Collectors.toSet()),
                            m == null
                                    ? null
                                    : m.decision()
                                            .map(d -> new DecisionIn(d.in(), d.reason(), d.inspection()))
                                            .orElse(null),
                            l.kind() == BundleLine.Kind.ITEM
                                    ? family.item(l.code())
                                            .map(i -> builds.fitted(job, i))
                                            .orElse(null)
                                    : null,
                            l.kind() == BundleLine.Kind.ITEM
                                    ? catalogued.stream()
                                            .filter(p -> p.itemCode().equals(l.code()))
                                            .map(p -> offer(
                                                    p,
                                                    own(family, l.code(), catalogued),
                                                    share,
                                                    quotes.get(p.number())))
                                            .toList()
                                    : List.of(),
                            words.write(m == null ? l.reason() : m.reason(), workshop.currency()));
                })
                .toList();
    }

    /** Fit data of the part the book names for an item. */
    private static FitCheck.Data own(EngineFamily family, String item, List<CatalogPart> catalogued) {
        return catalogued.stream()
                .filter(p -> family.item(item)
                        .filter(i -> i.part().number().equals(p.number()))
                        .isPresent())
                .map(CatalogPart::fit)
                .findFirst()
                .orElseGet(FitCheck.Data::unknown);
    }

    private OfferView offer(CatalogPart p, FitCheck.Data own, long labourShare, PartsSupplier.@Nullable Quote quote) {
        return new OfferView(
                p.number(),
                p.name(),
                p.grade(),
                p.grade().words(),
                p.priceMinor(),
                p.expectedKm().isPresent() ? p.expectedKm().getAsInt() : null,
                p.expectedKm().isPresent()
                        ? Math.round(Grade.costPer10000Km(
                                p.priceMinor(), labourShare, p.expectedKm().getAsInt()))
                        : null,
                quote == null ? 0 : quote.stock(),
                quote == null ? clock.today().plusDays(p.leadDays()) : quote.here(),
                FitCheck.compare(own, p.fit()).stream()
                        .map(FitCheck.Mismatch::words)
                        .toList());
    }

    static @Nullable BookingView booking(Job job, Map<Long, Person> technicians, Map<Long, Bay> bays) {
        return job.booking()
                .map(b -> new BookingView(
                        b.technicianId(),
                        Optional.ofNullable(technicians.get(b.technicianId()))
                                .map(Person::name)
                                .orElse("somebody who has left"),
                        b.bayId(),
                        Optional.ofNullable(bays.get(b.bayId())).map(Bay::name).orElse("?"),
                        b.start(),
                        b.end(),
                        b.promised()))
                .orElse(null);
    }

    Map<Long, Person> technicians() {
        return people.technicians().stream().collect(Collectors.toMap(Person::id, p -> p));
    }

    Map<Long, Bay> bays() {
        return jobs.everyBay().stream().collect(Collectors.toMap(Bay::id, b -> b));
    }
}
