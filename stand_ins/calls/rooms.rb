require "fileutils"
require "json"
require "monitor"
require "securerandom"
require "time"
require_relative "../../config/clock"
require_relative "door"

module Calls
  # All calls, each kept as a file, so that nothing is lost when this process is killed. Whoever has not been heard of
  # for half a minute has left.
  class Rooms
    include MonitorMixin

    SILENT_S = 30
    NUMBER = "+47 55 00 04 00"

    # @param address [String] where the pages are
    def initialize(dir, address:)
      super()
      @dir, @address = dir, address
      FileUtils.mkdir_p(dir)
      @rooms = Dir[File.join(dir, "*.json")].map { |path|
        JSON.parse(File.read(path))
      }.to_h { |room| [room["id"], room] }
      @beats = Hash.new(Clock.now)
    end

    def [](id) = synchronize { @rooms[id] }

    # Makes a call or changes it; the same wish again changes nothing. A higher renewal gives it another link and PIN,
    # and ends every visit that came by the old one.
    def put(id, wish)
      room = synchronize { @rooms[id] ||= {"id" => id, "visits" => {}, "events" => [], "renewal" => nil} }
      change(room) do
        room["wish"] ||= wish
        renew(room, wish["renewal"]) if room["renewal"].nil? || wish["renewal"] > room["renewal"]
        room["wish"] = wish.except("renewal")
        room["ended"] = false
        gone_people(room)
      end
    end

    def end_call(id)
      synchronize { @rooms[id] }&.then do |room|
        change(room) do
          end_visits(room, "ended")
          note(room, "ended") unless room["ended"]
          room["ended"] = true
        end
      end
    end

    # What the one who asked for the call may know of it.
    def shown(room)
      visits = room["visits"].map { |id, visit| visit.slice("key", "name", "state", "since").merge("visit" => id) }
      {
        "id" => room["id"], "url" => "#{@address}/c/#{room["slug"]}", "renewal" => room["renewal"],
        **(room["wish"]["dial_in"] ? {"number" => NUMBER, "pin" => room["pin"]} : {}),
        "in" => visits.select { |one| one["state"] == "in" },
        "waiting" => visits.select { |one| one["state"] == "waits" }
      }
    end

    def by_slug(slug) = synchronize { @rooms.values.find { |room| room["slug"] == slug && !room["ended"] } }

    def by_pin(pin) = synchronize do
      @rooms.values.find { |room| room["pin"] == pin && room["wish"]["dial_in"] && !room["ended"] }
    end

    # Somebody comes to the door. @return [Array(Symbol, String)] what the door says, and the key of the visit
    def enter(room, key:, name:, phone: false)
      change(room) do
        said = Door.decide(room["wish"], key, Clock.now, host_in: host_in?(room))
        said = :waits if said == :in && (room["taken_out"] || []).include?(key)
        next [said, nil] unless %i[in waits].include?(said)

        id = SecureRandom.uuid
        room["visits"][id] = {
          "key" => key, "name" => name, "state" => "waits", "since" => stamp, "phone" => phone,
          "quiet" => room["wish"]["quiet"], "presents" => false
        }
        @beats[id] = Clock.now
        (said == :in) ? let_in(room, id) : note(room, "waits", id)
        [said, id]
      end
    end

    # @param verdict [String] let_in, turn_away or take_out
    def judge(room, id, verdict)
      change(room) do
        visit = room["visits"][id]
        case verdict
        when "let_in"
          room["taken_out"]&.delete(visit["key"])
          let_in(room, id) if visit["state"] == "waits"
        when "turn_away" then leave(room, id, "turned_away") if visit["state"] == "waits"
        when "take_out" then take_out(room, id, visit)
        end
      end
    end

    def tried(room, key:, name:) = change(room) { note(room, "tried", nil, "person" => key, "name" => name) }

    def go(room, id) = change(room) { leave(room, id, "left") unless room["visits"][id]["state"] == "gone" }

    def beat(id) = synchronize { @beats[id] = Clock.now }

    def set(room, id, **wish) = change(room) { room["visits"][id].update(wish.transform_keys(&:to_s)) }

    def record(room, on)
      change(room) do
        next if !!room["recording"] == on

        room["recording"] = on
        note(room, on ? "recording_on" : "recording_off")
      end
    end

    # Whoever was not heard of has left, and when the time is up all have.
    def look_round
      synchronize { @rooms.values }.each do |room|
        here = room["visits"].select { |_, visit| visit["state"] != "gone" }
        next if here.empty?

        silent = here.keys.select { |id| Clock.now - beat_of(id) > SILENT_S }
        over = Door.state_at(room["wish"], Clock.now) != :open
        if over || silent.any?
          change(room) {
            over ? end_visits(room, "ended") : silent.each { |id|
              leave(room, id, "left")
            }
          }
        end
      end
    end

    # What is not reported yet, a few of each call, oldest first. @return [Array<Hash>]
    def to_report = synchronize do
      @rooms.values.flat_map { |room| room["events"].reject { |event| event["reported"] }.first(50) }
    end

    def reported(event) = change(@rooms[event["call"]]) { event["reported"] = true }

    def host_in?(room) = room["visits"].values.any? { |one| one["state"] == "in" && part(room, one["key"]) == "host" }

    def part(room, key) = person(room, key)&.fetch("part")

    def person(room, key) = key && room["wish"]["people"].find { |one| one["key"] == key }

    private

    def beat_of(id) = synchronize { @beats.key?(id) ? @beats[id] : (@beats[id] = Clock.now) }

    def renew(room, renewal)
      end_visits(room, "ended")
      room.update("renewal" => renewal, "slug" => SecureRandom.urlsafe_base64(16), "pin" => new_pin,
        "recording" => false)
    end

    def new_pin
      loop { format("%09d", SecureRandom.random_number(10**9)).tap { |pin| return pin unless by_pin(pin) } }
    end

    # Somebody with all their visits, however many browsers they are in by; they wait at the door when they come back.
    def take_out(room, id, visit)
      return if visit["state"] == "gone"
      return leave(room, id, "taken_out") unless visit["key"]

      (room["taken_out"] ||= []) << visit["key"]
      theirs = room["visits"].select { |_, one| one["key"] == visit["key"] && one["state"] != "gone" }
      theirs.each_key { |each| leave(room, each, "taken_out") }
    end

    # Who is asked no more is out.
    def gone_people(room)
      room["visits"].each do |id, visit|
        leave(room, id, "taken_out") if visit["key"] && visit["state"] != "gone" && person(room, visit["key"]).nil?
      end
    end

    # Where all wait for a host, they come in with the first one.
    def let_in(room, id)
      first_in = room["visits"].values.none? { |one| one["state"] == "in" }
      room["visits"][id].update("state" => "in", "since" => stamp)
      note(room, "came", id)
      if first_in && room["wish"]["records"] && !room["recording"]
        room["recording"] =
          true and note(room, "recording_on")
      end
      return unless room["wish"]["door"] == "host" && part(room, room["visits"][id]["key"]) == "host"

      waiting = room["visits"].select { |_, one|
        one["state"] == "waits" && !person(room, one["key"])&.fetch("waits", false)
      }
      waiting.each_key { |other| let_in(room, other) }
    end

    def leave(room, id, why)
      visit = room["visits"][id]
      came_at = (visit["since"] if visit["state"] == "in")
      visit["state"], visit["why"] = "gone", why
      note(room, "left", id, "came_at" => came_at, "why" => why)
    end

    def end_visits(room, why)
      room["visits"].each { |id, visit| leave(room, id, why) unless visit["state"] == "gone" }
    end

    def note(room, kind, id = nil, more = {})
      visit = id ? room["visits"][id] : {}
      room["events"] << {
        "id" => SecureRandom.uuid, "call" => room["id"], "number" => room["events"].size + 1, "kind" => kind,
        "at" => stamp, "visit" => id, "person" => visit["key"], "name" => visit["name"], **more
      }
    end

    def stamp = Clock.now.iso8601(3)

    # Kept before anybody hears of it.
    def change(room)
      synchronize do
        result = yield room
        path = File.join(@dir, "#{room["id"]}.json")
        File.write("#{path}.new", JSON.generate(room))
        File.rename("#{path}.new", path)
        result
      end
    end
  end
end
