module Views
  # What holds of series and nobody, or not everybody, has been told of yet: for many series in a fixed number of
  # queries.
  class Untold < Base
    # @param series [Array<Records::Series>] with keeper, place, members and their people
    # @return [Hash{String => Hash}] by series, those alone of which something is untold
    def of(series)
      ours = series.reject { |one| one.outside_meeting_id || one.members.empty? }
      fill(ours)
      before = Loading::ToldBefore.new(ours)
      pending = Loading::Substitutes.pending(ours, now: now)
      ours.filter_map { |one| row(one, before, pending.fetch(one.id, []))&.then { |row| [one.id, row] } }.to_h
    end

    # Of one. @return [Hash, nil]
    def show(id)
      of([find(Records::Series.includes(:keeper, :held_place, members: :person), id)])[id]
    end

    private

    def fill(series)
      Records::Base.fill(series, :meetings, :keeper, :held_place)
      Records::Base.fill(series.flat_map(&:meetings).select(&:own_where), :held_place)
    end

    def row(series, before, others)
      coming = series.meetings.select { |meeting| meeting.coming?(now) }.map(&:starts_at).min
      return unless coming || series.told_at

      recipients = Loading::Recipients.new(series.id, now: now, series: series, before: before)
      waiting, unreachable = recipients.waiting, recipients.unreachable
      people = waiting.size + others.size
      return if people.zero? && (unreachable.empty? || coming.nil?)

      {
        series_id: series.id, title: series.title, mark: series.mark, state: series.told_at ? "changed" : "never",
        people: people, **kinds(waiting, others), unreachable: unreachable.map { |person| named(person) },
        next_local_start: coming && series.zone.wall(coming),
        notice: Records::SeenNotice.name_of("address", series.id, *unreachable.map(&:id))
      }
    end

    def kinds(waiting, others) =
      Core::Invitation::News.counts(waiting.map(&:kind), others.map { |one, kind| asked(one, kind) })

    # Who comes to one meeting alone.
    def asked(one, kind)
      return :called_off if kind == :cancel

      one.told_digest ? :changed : :invited
    end
  end
end
