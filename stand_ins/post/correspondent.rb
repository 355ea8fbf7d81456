require "icalendar"
require "ice_cube"
require "mail"
require "net/smtp"
require_relative "../../config/clock"

module Post
  # An invited person with a calendar of their own, who knows nothing but the mails: shows what stands in that calendar,
  # and answers with real replies (RFC 5546, 6047), sent by SMTP to where the organizer's mail comes in.
  class Correspondent
    AHEAD_DAYS = 400
    MOST = 60
    ANSWERS = {"accepted" => "Accepted", "tentative" => "Tentative", "declined" => "Declined"}.freeze

    # A message as the calendar keeps it: the latest by sequence, then stamp.
    Message = Struct.new(:mail_key, :method, :events, :sequence, :stamp, keyword_init: true) do
      def uid = events.first.uid.to_s

      def master = events.find { |event| event.recurrence_id.nil? } || events.first
    end
    Instance = Struct.new(:title, :original, :starts_at, :ends_at, :zone, :location, :moved, keyword_init: true)

    def initialize(store, address, entrance_port:)
      @store = store
      @address = address
      @entrance_port = entrance_port
    end

    def self.message_of(mail, key = nil)
      part = mail.all_parts.find { |one| one.mime_type == "text/calendar" } or return
      calendar = Icalendar::Calendar.parse(part.decoded.force_encoding("UTF-8")).first
      return if calendar.nil? || calendar.events.empty?

      Message.new(
        mail_key: key, method: calendar.ip_method.to_s, events: calendar.events,
        sequence: calendar.events.first.sequence.to_i, stamp: calendar.events.first.dtstamp.to_time
      )
    rescue ArgumentError, NoMethodError
      nil # not a calendar this one can read
    end

    # @return [Array<Message>] the latest of each meeting
    def meetings
      messages =
        @store
          .entries(to: @address)
          .filter_map { |entry| Correspondent.message_of(@store.mail(entry.key), entry.key) }
      messages
        .select { |message| %w[REQUEST CANCEL].include?(message.method) }
        .group_by(&:uid)
        .values
        .map { |versions| versions.max_by { |message| [message.sequence, message.stamp] } }
    end

    # What stands in the calendar from now on, in order, on each meeting's own wall.
    def instances(now = Clock.now)
      meetings
        .select { |message| message.method == "REQUEST" }
        .flat_map { |message| expand(message) }
        .select { |instance| instance.ends_at > now.utc }
        .sort_by(&:starts_at)
        .first(MOST)
    end

    # @param original [String, nil] which instance, as its RECURRENCE-ID; nil: the whole run
    def answer(message, answer, original, comment) = send_back(message, "REPLY", original) { |event|
      event.append_attendee(Icalendar::Values::CalAddress.new("mailto:#{@address}", "partstat" => answer.upcase))
      event.comment = comment unless comment.to_s.empty?
    }

    def offer(message, original, starts_at, comment)
      minutes = message.master.duration || Icalendar::Values::Duration.new("PT60M")
      send_back(message, "COUNTER", original) do |event|
        event.append_attendee(Icalendar::Values::CalAddress.new("mailto:#{@address}"))
        event.dtstart = Icalendar::Values::DateTime.new(starts_at.delete("-:") + "00", "tzid" => zone_of(message))
        event.duration = minutes
        event.comment = comment unless comment.to_s.empty?
      end
    end

    private

    def zone_of(message) = message.master.dtstart.ical_params["tzid"]&.first || "UTC"

    # Wall-clock fields as UTC: this calendar shows each meeting on its own wall.
    def wall(value) = Time.utc(value.year, value.month, value.day, value.hour, value.min)

    def expand(message)
      master = message.master
      return message.events.map { |event| single(event) } if master.recurrence_id

      length = seconds(master.duration)
      moved =
        message.events.reject { |event| event.recurrence_id.nil? }.to_h { |event| [wall(event.recurrence_id), event] }
      walls(master).map do |original|
        event = moved[original] || master
        starts_at = moved[original] ? wall(event.dtstart) : original
        Instance.new(
          title: event.summary.to_s, original: original.strftime("%Y%m%dT%H%M%S"), starts_at: starts_at,
          ends_at: starts_at + (moved[original] ? seconds(event.duration) : length), zone: zone_of(message),
          location: event.location.to_s, moved: !moved[original].nil?
        )
      end
    end

    # Asked to one meeting of a run alone.
    def single(event)
      Instance.new(
        title: event.summary.to_s,
        original: wall(event.recurrence_id).strftime("%Y%m%dT%H%M%S"),
        starts_at: wall(event.dtstart),
        ends_at: wall(event.dtstart) + seconds(event.duration),
        zone: event.dtstart.ical_params["tzid"]&.first || "UTC",
        location: event.location.to_s,
        moved: wall(event.dtstart) != wall(event.recurrence_id)
      )
    end

    def seconds(duration) =
      if duration.nil?
        3_600
      else
        (
          (duration.weeks * 7 + duration.days) * 86_400 + duration.hours * 3_600 + duration.minutes * 60 +
            duration.seconds
        )
      end

    def walls(master)
      start = wall(master.dtstart)
      found = master.rrule.any? ? ruled(master, start) : [start]
      found += master.rdate.flatten.map { |date| wall(date) }
      (found - master.exdate.flatten.map { |date| wall(date) }).uniq.sort
    end

    # UNTIL is an instant; on the wall it is read a day generously and cut by the end of that day there.
    def ruled(master, start)
      schedule = IceCube::Schedule.new(start)
      text = master.rrule.first.value_ical.gsub(/UNTIL=(\d{8})T\d{6}Z/) { "UNTIL=#{$1}T235959Z" }
      schedule.add_recurrence_rule(IceCube::Rule.from_ical(text))
      schedule.occurrences(Clock.now + AHEAD_DAYS * 86_400).map(&:utc)
    end

    # Who is asked to one meeting of a run alone answers to that one.
    def send_back(message, method, original)
      original = wall(message.master.recurrence_id).strftime("%Y%m%dT%H%M%S") if message.master.recurrence_id
      calendar = Icalendar::Calendar.new
      calendar.append_custom_property("METHOD", method)
      event = Icalendar::Event.new
      event.uid = message.uid
      event.sequence = message.sequence
      event.dtstamp = Icalendar::Values::DateTime.new(Clock.now, "tzid" => "UTC")
      event.organizer = message.master.organizer
      unless original.to_s.empty?
        event.recurrence_id = Icalendar::Values::DateTime.new(original, "tzid" => zone_of(message))
      end
      event.summary = message.master.summary
      yield event
      calendar.add_event(event)
      post(message, method, calendar.to_ical)
    end

    def post(message, method, ical)
      to = message.master.organizer.to_s.sub(/\Amailto:/i, "")
      mail = ::Mail.new(from: @address, to: to, subject: "#{method.capitalize}: #{message.master.summary}")
      mail.text_part = ::Mail::Part.new(
        content_type: "text/plain; charset=UTF-8", body: "#{method.capitalize} from a calendar program.\n"
      )
      mail.add_part(
        ::Mail::Part.new(
          content_type: "text/calendar; charset=UTF-8; method=#{method}", content_transfer_encoding: "base64",
          body: [ical].pack("m")
        )
      )
      Net::SMTP.start("127.0.0.1", @entrance_port, helo: "localhost") do |smtp|
        smtp.send_message(mail.encoded, @address, to)
      end
    end
  end
end
