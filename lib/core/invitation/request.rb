module Core
  module Invitation
    # The invitation of a whole series as an iTIP REQUEST (RFC 5546 3.2.2): one VEVENT with its rule or
    # dates; meetings called off are left out by EXDATE, moved ones replaced by a VEVENT with RECURRENCE-ID.
    class Request < Value.of(:uid, :sequence, :run, :title, :description, :location, :organizer, :attendees, :called_off, :moved, :now)
      # `original` its start on the wall by rule, `start` where it is now.
      Moved = Value.of(:original, :start, :length_min)
      # `role` :required, :optional or :informed; `answer` as PARTSTAT in small letters.
      Attendee = Value.of(:name, :address, :role, :answer)
      Organizer = Value.of(:name, :address)

      ROLES = {required: "REQ-PARTICIPANT", optional: "OPT-PARTICIPANT", informed: "NON-PARTICIPANT"}.freeze
      ANSWERS = {none: "NEEDS-ACTION", accepted: "ACCEPTED", tentative: "TENTATIVE", declined: "DECLINED"}.freeze
      PRODID = "-//Left Over//Left Over 1.0//EN"
      # How long an endless run's zone is spelled out.
      ENDLESS_YEARS = 10
      YEAR_S = 31_556_952

      # @return [String] the iCalendar object
      def to_ical
        writer = ICalendar::Writer.new
        writer.component("VCALENDAR") do
          writer.raw("VERSION", "2.0").raw("PRODID", PRODID).raw("CALSCALE", "GREGORIAN").raw("METHOD", "REQUEST")
          ICalendar::ZoneWriter.write(writer, run.zone, first_instant, last_instant)
          writer.component("VEVENT") { event(writer) { times(writer) } }
          moved.each { |one| writer.component("VEVENT") { event(writer) { moved_times(writer, one) } } }
        end
        writer.to_s
      end

      private

      def event(writer)
        writer.raw("UID", uid).raw("SEQUENCE", sequence).instant("DTSTAMP", now)
        yield
        writer.text("SUMMARY", title).text("DESCRIPTION", description).text("LOCATION", location)
        writer.raw("STATUS", "CONFIRMED").raw("TRANSP", "OPAQUE")
        writer.user("ORGANIZER", organizer.address, cn: organizer.name)
        attendees.each { |attendee| attendee(writer, attendee) }
      end

      def times(writer)
        writer.walls("DTSTART", [run.start], run.zone).raw("DURATION", "PT#{run.length_min}M")
        writer.raw("RRULE", run.rule.to_text(zone: run.zone)) if run.rule
        writer.walls("RDATE", [run.start, *run.dates], run.zone) if run.dates.any? # the start again, as in ZoneWriter
        writer.walls("EXDATE", called_off.sort, run.zone) if called_off.any?
      end

      def moved_times(writer, one)
        writer.walls("RECURRENCE-ID", [one.original], run.zone)
        writer.walls("DTSTART", [one.start], run.zone).raw("DURATION", "PT#{one.length_min}M")
      end

      def attendee(writer, attendee)
        asked = attendee.role != :informed && attendee.answer == :none
        writer.user("ATTENDEE", attendee.address, cn: attendee.name, cutype: "INDIVIDUAL", role: ROLES.fetch(attendee.role),
          partstat: ANSWERS.fetch(attendee.answer), rsvp: asked ? "TRUE" : "FALSE")
      end

      def first_instant = run.zone.instant(run.start)

      def last_instant
        last = run.endless? ? first_instant + ENDLESS_YEARS * YEAR_S : run.zone.instant(WallTime.at(run.last_date))
        last + YEAR_S
      end
    end
  end
end
