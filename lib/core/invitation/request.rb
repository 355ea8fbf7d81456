module Core
  module Invitation
    # The invitation of a whole series as iTIP writes it: a REQUEST (RFC 5546 3.2.2) with one VEVENT for its rule or
    # dates, meetings called off left out by EXDATE, moved ones replaced by a VEVENT with RECURRENCE-ID; or a CANCEL
    # (3.2.5). Each message says all there is, so one that is lost or late does no harm.
    # `own_answers`: the reader's answers to single meetings, by original start, where they differ from the answer to
    # all, so that what was declined does not come back as open; `blocks` whether it keeps the reader's time busy; `url`
    # where the whole leads, and `date_urls` where single dates do, by original start.
    class Request < Value.of(
      :method, :uid, :sequence, :content, :description, :organizer, :attendees, :own_answers, :blocks, :url, :date_urls,
      :alarm_min, :now, :mark
    )
      # `role` :required, :optional or :informed; `answer` as PARTSTAT in small letters; `asked` whether one is waited
      # for.
      Attendee = Value.of(:name, :address, :role, :answer, :asked)
      Organizer = Value.of(:name, :address)

      ROLES = {required: "REQ-PARTICIPANT", optional: "OPT-PARTICIPANT", informed: "NON-PARTICIPANT"}.freeze
      ANSWERS = {none: "NEEDS-ACTION", accepted: "ACCEPTED", tentative: "TENTATIVE", declined: "DECLINED"}.freeze
      PRODID = "-//Left Over//Left Over 1.0//EN"
      # How long an endless run's zone is spelled out.
      ENDLESS_YEARS = 10
      YEAR_S = 31_556_952
      # Before the meeting, in minutes, unless somebody wants another (common practice).
      ALARM_MIN = 15

      # @return [String] the iCalendar object
      def to_ical
        writer = ICalendar::Writer.new
        writer.component("VCALENDAR") do
          writer
            .raw("VERSION", "2.0")
            .raw("PRODID", PRODID)
            .raw("CALSCALE", "GREGORIAN")
            .raw("METHOD", method.to_s.upcase)
          ICalendar::ZoneWriter.write(writer, run.zone, first_instant, last_instant)
          content.single? ? alone(writer) : whole(writer)
        end
        writer.to_s
      end

      private

      def run = content.run

      def cancel? = method == :cancel

      # One meeting is one event, where and when it is now.
      def alone(writer)
        one = singles.first || {"from" => content.start, "to" => content.start, "length_min" => content.length_min}
        writer.component("VEVENT") { event(writer, one) { own_times(writer, one) } }
      end

      def whole(writer)
        writer.component("VEVENT") { event(writer) { times(writer) } }
        return if cancel?

        singles.each { |one| writer.component("VEVENT") { event(writer, one) { moved_times(writer, one) } } }
      end

      # Those that say something else than the whole: moved, elsewhere, or answered otherwise.
      def singles
        moved = content.moved.map { |one| one["from"] }
        answered =
          own_answers
            .keys
            .reject { |wall| moved.include?(wall) }
            .map { |wall| {"from" => wall, "to" => wall, "length_min" => content.length_min} }
        content.moved + answered
      end

      def event(writer, single = {})
        writer.raw("UID", uid).raw("SEQUENCE", sequence).instant("DTSTAMP", now)
        yield
        writer
          .text("SUMMARY", content.title)
          .text("DESCRIPTION", description)
          .text("LOCATION", place_of(single).where)
          .raw("URL", date_urls.fetch(single["from"], url))
        place_of(single).online&.write(writer)
        Mark.write(writer, mark)
        writer.raw("STATUS", cancel? ? "CANCELLED" : "CONFIRMED").raw("TRANSP", blocks ? "OPAQUE" : "TRANSPARENT")
        writer.user("ORGANIZER", organizer.address, cn: organizer.name)
        answered(single).each { |attendee| attendee(writer, attendee) }
        alarm(writer) if blocks && !cancel?
      end

      # A single meeting may be elsewhere.
      def place_of(single) =
        single.key?("where") ? content.with(location: single["where"], call: single["call"]) : content

      # The reader stands first.
      def answered(single)
        own = own_answers[single["from"]] or return attendees
        [attendees.first.with(answer: own), *attendees.drop(1)]
      end

      def times(writer)
        writer.walls("DTSTART", [run.start], run.zone).raw("DURATION", "PT#{run.length_min}M")
        writer.raw("RRULE", run.rule.to_text(zone: run.zone)) if run.rule
        writer.walls("RDATE", [run.start, *run.dates], run.zone) if run.dates.any? # the start again, as in ZoneWriter
        off = content.off_of_run
        writer.walls("EXDATE", off.sort, run.zone) if off.any?
      end

      def moved_times(writer, one)
        writer.walls("RECURRENCE-ID", [WallTime.parse(one["from"])], run.zone)
        own_times(writer, one)
      end

      def own_times(writer, one)
        writer.walls("DTSTART", [WallTime.parse(one["to"])], run.zone).raw("DURATION", "PT#{one["length_min"]}M")
      end

      def alarm(writer)
        writer.component("VALARM") do
          writer.raw("ACTION", "DISPLAY").text("DESCRIPTION", content.title).raw("TRIGGER", "-PT#{alarm_min}M")
        end
      end

      def attendee(writer, attendee)
        asked = attendee.asked && attendee.role != :informed && attendee.answer == :none
        writer.user(
          "ATTENDEE", attendee.address, cn: attendee.name, cutype: "INDIVIDUAL", role: ROLES.fetch(attendee.role),
          partstat: ANSWERS.fetch(attendee.answer), rsvp: asked ? "TRUE" : "FALSE"
        )
      end

      def first_instant = [run.start, *moved_to].map { |wall| run.zone.instant(wall) }.min

      def last_instant
        last = run.endless? ? first_instant + ENDLESS_YEARS * YEAR_S : run.zone.instant(WallTime.at(run.last_date))
        [last, *moved_to.map { |wall| run.zone.instant(wall) }].max + YEAR_S
      end

      def moved_to = content.moved.map { |one| WallTime.parse(one["to"]) }
    end
  end
end
