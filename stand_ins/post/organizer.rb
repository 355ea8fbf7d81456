require "icalendar"
require "icalendar/tzinfo"
require "mail"
require "net/smtp"
require "securerandom"
require_relative "../../config/clock"

module Post
  # Somebody of another house who invites people to a meeting of their own, by real requests and cancellations (RFC
  # 5546, 6047). What was sent last comes back in the form, to be sent again with another time.
  class Organizer
    ADDRESS = "olav@portcouncil.example"
    NAME = "Olav Dahl"
    ZONE = "Europe/Oslo"
    METHODS = %w[REQUEST CANCEL].freeze

    def initialize(entrance_port:)
      @entrance_port = entrance_port
    end

    # @param wish [Hash] to, title, starts_at, minutes, weeks, method, uid, sequence, entrance
    # @return [Hash] the same, with the sequence of the next message
    def send_message(wish)
      wish = {"uid" => "#{SecureRandom.uuid}@portcouncil.example", "sequence" => "0"}.merge(
        wish.reject { |_, value| value.to_s.empty? }
      )
      method = METHODS.include?(wish["method"]) ? wish["method"] : "REQUEST"
      post(wish, method, calendar(wish, method).to_ical)
      wish.slice("to", "title", "starts_at", "minutes", "weeks", "uid", "entrance").merge(
        "sequence" => (wish["sequence"].to_i + 1).to_s, "sent" => method
      )
    end

    private

    def calendar(wish, method)
      calendar = Icalendar::Calendar.new
      calendar.append_custom_property("METHOD", method)
      calendar.add_timezone(TZInfo::Timezone.get(ZONE).ical_timezone(Clock.now))
      calendar.event { |event| fill(event, wish, method) }
      calendar
    end

    def fill(event, wish, method)
      event.uid = wish["uid"]
      event.sequence = wish["sequence"].to_i
      event.dtstamp = Icalendar::Values::DateTime.new(Clock.now, "tzid" => "UTC")
      event.dtstart = Icalendar::Values::DateTime.new(wish["starts_at"].delete("-:") + "00", "tzid" => ZONE)
      event.duration = Icalendar::Values::Duration.new("PT#{[wish["minutes"].to_i, 15].max}M")
      event.rrule = "FREQ=WEEKLY;COUNT=#{wish["weeks"].to_i}" if wish["weeks"].to_i > 1
      event.summary = wish["title"]
      event.location = "Harbour office"
      event.status = (method == "CANCEL") ? "CANCELLED" : "CONFIRMED"
      event.organizer = Icalendar::Values::CalAddress.new("mailto:#{ADDRESS}", "cn" => NAME)
      event.append_attendee(
        Icalendar::Values::CalAddress.new(
          "mailto:#{wish["to"]}", "partstat" => "NEEDS-ACTION", "rsvp" => "TRUE", "role" => "REQ-PARTICIPANT"
        )
      )
    end

    # To the address at which the house of the invited takes mail in.
    def post(wish, method, ical)
      to = wish["entrance"] || "meetings@skerrybuoy.example"
      mail = ::Mail.new(
        from: "#{NAME} <#{ADDRESS}>", to: to,
        subject: "#{(method == "CANCEL") ? "Called off" : "Invitation"}: #{wish["title"]}"
      )
      mail.text_part = ::Mail::Part.new(content_type: "text/plain; charset=UTF-8", body: "See the calendar part.\n")
      mail.add_part(
        ::Mail::Part.new(
          content_type: "text/calendar; charset=UTF-8; method=#{method}", content_transfer_encoding: "base64",
          body: [ical].pack("m")
        )
      )
      Net::SMTP.start("127.0.0.1", @entrance_port, helo: "localhost") do |smtp|
        smtp.send_message(mail.encoded, ADDRESS, to)
      end
    end
  end
end
