require "date"
require "fileutils"
require "json"
require "yaml"
require_relative "../../config/clock"

module Calendars
  # What stands in whose calendar: the invented weeks of people.yml, begun on the Monday half a year before the host was
  # first started, and what was added on the page since.
  class Shelf
    WEEKS_BACK = 26
    DAYS = %w[MO TU WE TH FR SA SU].freeze

    def initialize(dir)
      @dir = dir
      FileUtils.mkdir_p(dir)
      @people = YAML.safe_load_file(File.expand_path("people.yml", __dir__))
      @monday = Date.iso8601(kept("monday") { (Clock.today - (Clock.today.cwday - 1) - WEEKS_BACK * 7).iso8601 })
    end

    def names = @people.keys

    # @return [String, nil] the calendar as iCalendar (RFC 5545); the same bytes as long as nothing changes
    def calendar(name)
      person = @people[name] or return
      events =
        person["weeks"].each_with_index.map { |entry, i| weekly(name, person["zone"], entry, i) } +
        added(name).map { |entry| single(name, person["zone"], entry) }
      [
        "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Skerry Buoy Trust//Calendar host//EN", *events.flatten,
        "END:VCALENDAR", ""
      ].join("\r\n")
    end

    def add(name, title, from, to)
      return unless @people.key?(name)

      File.write(
        path(name),
        JSON.generate(
          added(name) << {
            "title" => title.to_s[0, 100], "from" => from, "to" => to,
            "uid" => "#{name}-#{Clock.now.to_i}-#{added(name).size}"
          }
        )
      )
    end

    def added(name) = File.exist?(path(name)) ? JSON.parse(File.read(path(name))) : []

    private

    def kept(name)
      file = File.join(@dir, name)
      File.write(file, yield) unless File.exist?(file)
      File.read(file)
    end

    def path(name) = File.join(@dir, "#{name}.json")

    # [title, days, from, to, every how many weeks, how sure]
    def weekly(name, zone, entry, number)
      title, days, from, to, interval, certainty = entry
      first = days.split(",").map { |day| @monday + DAYS.index(day) }.min
      rule = "FREQ=WEEKLY;BYDAY=#{days}#{";INTERVAL=#{interval}" if interval.to_i > 1}"
      event(
        "#{name}-#{number}",
        title,
        zone,
        stamp(first, from),
        stamp(first, to),
        [
          "RRULE:#{rule}", ("STATUS:TENTATIVE" if certainty == "tentative"),
          ("TRANSP:TRANSPARENT" if certainty == "free")
        ].compact
      )
    end

    def single(name, zone, entry) =
      event(entry["uid"], entry["title"], zone, entry["from"].delete("-:"), entry["to"].delete("-:"), [])

    def event(uid, title, zone, from, to, more)
      [
        "BEGIN:VEVENT", "UID:#{uid}@host.skerrybuoy.example", "DTSTAMP:#{@monday.strftime("%Y%m%d")}T000000Z",
        "SUMMARY:#{title.gsub(/[\\;,]/) { |char| "\\#{char}" }.gsub(/[[:cntrl:]]/, " ")}",
        "DTSTART;TZID=#{zone}:#{from}", "DTEND;TZID=#{zone}:#{to}", *more, "END:VEVENT"
      ]
    end

    def stamp(date, time) = "#{date.strftime("%Y%m%d")}T#{time.delete(":")}00"
  end
end
