module Mailing
  # Minutes as a journal entry (VJOURNAL, RFC 5545 3.6.3), as calendar programs keep them beside the meeting.
  class MinutesJournal
    STATUS = {"issued" => "FINAL"}.freeze

    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    def source
      Core::ICalendar::Writer.new.component("VCALENDAR") do |writer|
        writer.raw("VERSION", "2.0").raw("PRODID", Core::Invitation::Request::PRODID).raw("METHOD", "PUBLISH")
        writer.component("VJOURNAL") { entry(writer) }
      end.to_s
    end

    private

    def entry(writer)
      writer.raw("UID", "minutes-#{@document.id}@left-over").instant("DTSTAMP", @document.stamp)
      writer.raw("DTSTART", @document.date.strftime("%Y%m%d"), value: "DATE")
      writer.text("SUMMARY", "#{@document.kind}: #{@document.title}")
      writer.text("DESCRIPTION", MinutesText.new(@document).source)
      writer.raw("STATUS", STATUS.fetch(@document.state, "DRAFT"))
    end
  end
end
