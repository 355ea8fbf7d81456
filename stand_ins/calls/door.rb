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

      state = state_at(wish, now)
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

    # @return [Symbol] :open, :early or :over
    def state_at(wish, now)
      openings = wish["openings"].map { |one| [Time.iso8601(one["opens_at"]), Time.iso8601(one["closes_at"])] }
      return :open if openings.any? { |from, to| now >= from && now < to }

      (openings.any? { |from, _| now < from }) ? :early : :over
    end

    # @return [String, nil] when it opens next
    def opens_at(wish, now) = wish["openings"].map { |one| one["opens_at"] }.select { |at| Time.iso8601(at) > now }.min
  end
end
