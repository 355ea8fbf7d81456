module Core
  module Calls
    # Who was in a call from when to when, from what the call service has reported: whatever was reported twice, out of
    # order or late, the same reports give the same answer.
    class Presence
      # `kind`: waits, came, left, tried, ended, recording_on or recording_off. `person` key of whom a personal link
      # speaks for, nil for others, who are known by their visit. `came_at` of one who has left the call.
      Report = Value.of(:id, :kind, :at, :visit, :person, :name, :came_at)
      # `spans` of [from, to] in order, `to` nil while they are in; `visits` still open, and the last of all.
      class Person < Value.of(:person, :name, :spans, :visits, :last_visit)
        def in? = spans.any? { |_, to| to.nil? }
      end

      Visit = Struct.new(:key, :person, :name, :waits_at, :came_at, :left_at)

      # Whoever leaves so shortly before the end has stayed (common practice).
      END_S = 300

      # @param reports [Array<Report>] in any order, any of them several times
      def initialize(reports)
        @reports = reports.uniq(&:id)
        @ends = @reports.select { |one| one.kind == "ended" }.map(&:at).sort
        @visits = @reports.select(&:visit).group_by(&:visit).map { |key, some| visit(key, some) }
      end

      # @return [Array<Person>] by when they first came
      def people
        @people ||= came.group_by { |one| one.person || one.key }.values.map { |some| person(some) }
          .sort_by { |one| [one.spans.first.first, one.name.to_s] }
      end

      # @return [Array<Visit>] at the door now, who came first at the head
      def waiting = @visits.select { |one| one.came_at.nil? && one.left_at.nil? && one.waits_at }.sort_by(&:waits_at)

      # @return [Array<String>] people who tried the entrance, and those who got in
      def got_through = @reports.select { |one| %w[tried came].include?(one.kind) }.filter_map(&:person).uniq

      # @return [Boolean] as said last
      def recording?
        last = @reports.select { |one| one.kind.start_with?("recording") }.max_by { |one| [one.at, one.id] }
        last&.kind == "recording_on"
      end

      # What stands in the list of who was there: since when, if late; gone, if before the end; and away in between.
      # @param spans [Array<Array(Time, Time)>] of one person
      # @param interval [Interval] of the meeting, as planned
      # @param begun_at, closed_at [Time, nil] when it was begun and closed
      # @return [Array(Symbol, Sheet::Stay), nil] a state of Sheet::Attendance; nil: was not there during it
      def self.attendance(spans, interval, begun_at: nil, closed_at: nil)
        spans = spans.reject { |from, _| closed_at && from >= closed_at }
        return if spans.empty?

        held = Sheet::Attendance.held(interval, begun_at)
        from, to = spans.first.first, spans.last.last
        return if to && to <= [held.starts_at, begun_at].compact.min
        gone = to if to && to < (closed_at || held.ends_at) - END_S
        inner = joined(spans).flatten[1..-2]
        times = [(from if from > held.starts_at), *inner, gone]
        [gone ? :left : :on_call, Sheet::Stay.new(times.each_slice(2).to_a)]
      end

      # Whoever is back so soon has not been away.
      def self.joined(spans)
        spans.slice_when { |(_, to), (from, _)| from - to >= END_S }.map { |some| [some.first[0], some.last[1]] }
      end
      private_class_method :joined

      private

      def visit(key, reports)
        of = reports.group_by(&:kind)
        left = of["left"]&.min_by { |one| [one.at, one.id] }
        came = [*of["came"]&.map(&:at), left&.came_at].compact.min
        first = reports.min_by { |one| [one.at, one.id] }
        waits = of["waits"]&.map(&:at)&.min
        left_at = left&.at || ended_after(came || waits)
        Visit.new(key, reports.filter_map(&:person).first, first.name, waits, came, left_at)
      end

      # Nobody is in a call that has ended, even where their leaving was never reported.
      def ended_after(at) = at && @ends.find { |ended| ended >= at }

      def came = @visits.select(&:came_at)

      # One person may be in by browser and by phone at once.
      def person(visits)
        sorted = visits.sort_by { |one| [one.came_at, one.key] }
        spans = sorted.map { |one| [one.came_at, one.left_at] }.each_with_object([]) do |(from, to), merged|
          last = merged.last
          next merged << [from, to] if last.nil? || (last[1] && from > last[1])

          last[1] = (last[1].nil? || to.nil?) ? nil : [last[1], to].max
        end
        Person.new(person: sorted.first.person, name: sorted.first.name, spans: spans,
          visits: sorted.select { |one| one.left_at.nil? }.map(&:key), last_visit: sorted.last.key)
      end
    end
  end
end
