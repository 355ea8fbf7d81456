require "time"

module Calls
  # Who walks in, who waits, and who is told nothing.
  module Door
    module_function

    # @param wish [Hash] of a call, as contract/calls.yaml has it
    # @param key [String, nil] whom a personal link speaks for
    # @param host_in [Boolean] whether a host is in the call
    # @return [Symbol] :in, :waits, :early, :over or :refused
    def decide(wish, key, now, host_in:)
      person = key && wish["people"].find { |one| one["key"] == key }
      return :refused if key && person.nil?
      return :refused if person.nil? && wish["door"] == "known"

      state = state_at(wish, now, key)
      return state unless state == :open
      return :in if person && person["part"] == "host"
      return :waits if person && person["waits"]

      walks_in?(wish["door"], person, host_in) ? :in : :waits
    end

    def walks_in?(door, person, host_in)
      case door
      when "members" then person && person["part"] == "member"
      when "host" then host_in
      else true
      end
    end

    # @param key [String, nil] of somebody who may be asked to some of the meetings only
    # @return [Symbol] :open, :early or :over
    def state_at(wish, now, key = nil)
      times = times(wish, key)
      return :open if times.any? { |one| now >= at(one, "opens_at") && now < at(one, "closes_at") }

      (times.any? { |one| now < at(one, "opens_at") }) ? :early : :over
    end

    # @return [String, nil] when it opens next
    def opens_at(wish, now, key = nil)
      times(wish, key).select { |one| at(one, "opens_at") > now }.map { |one| one["opens_at"] }.min
    end

    def times(wish, key)
      only = key && wish["people"].find { |one| one["key"] == key }&.fetch("only", nil)
      only ? wish["open_times"].select { |one| only.include?(one["starts_at"]) } : wish["open_times"]
    end

    def at(time, name) = Time.iso8601(time[name])
  end
end
