module Views
  # The call of a meeting beside its sheet: the reader's way in, who is in, who waits at the door, and the people with
  # times of their own. What is reported is read once for all of it.
  class SheetCall
    # @param meeting [Records::Meeting] with its series
    # @param asked [Proc] keys of the people on the sheet
    # @param by [String, nil] the reader
    def initialize(meeting, asked, by:, now:)
      @meeting, @asked, @by, @now = meeting, asked, by, now
      @zone = meeting.series.zone
    end

    # @return [Hash] for everybody who follows the sheet
    def shared = {on_call: on_call, row: row, row_late_min: @meeting.row_late_min}

    # @return [Hash] for the reader
    def show
      {
        call: Loading::WayIn.call(@meeting, @by, at: @now, row: call)&.to_h, **shared,
        row_untold: Loading::Rows.untold(slots).size, **picking
      }
    end

    private

    # The plan of the row, and who picks from it.
    def picking
      plan = @meeting.row_plan or return {row_plan: nil, row_pickers: []}
      breaks = plan["breaks"].map do |from, to|
        {from: @zone.wall(Time.iso8601(from)), to: @zone.wall(Time.iso8601(to))}
      end
      {
        row_plan: {length_min: plan["length_min"], pause_min: plan["pause_min"], breaks: breaks,
                   times: Loading::PickLink.plan(@meeting).starts.size},
        row_pickers: pickers
      }
    end

    def pickers
      picked = standing.map(&:person_id)
      Records::RowPicker.where(meeting_id: @meeting.id).order(:created_at, :id).includes(:person).map do |one|
        {name: one.name, email: one.person.email, asked: !one.asked_at.nil?, picked: picked.include?(one.person_id)}
      end
    end

    def call
      return @call if defined?(@call)

      @call = Records::Call.of(@meeting)
    end

    def there = @there ||= Loading::CallPresence.of(@meeting.id)

    # Those taken off again, who have not heard of it, too.
    def slots
      @slots ||= Records::RowSlot.where(meeting_id: @meeting.id).in_order.includes(:person).to_a
        .each { |slot| slot.association(:meeting).target = @meeting }
    end

    def standing = slots.reject(&:off)

    def listed = @listed ||= @asked.call + standing.map(&:person_id)

    # @return [Hash, nil] nil where no call is made here
    def on_call
      return unless @meeting.call_ours

      open = @meeting.call_open(@now)
      {
        made: call&.state == "made", opens_at: open.starts_at, closes_at: open.ends_at, plain: call&.plain&.to_h,
        here: there.people.select(&:in?).map { |one| person(one) },
        waiting: there.waiting.map { |one| {visit: one.key, name: one.name, since: one.waits_at} },
        unlisted: there.people.reject { |one| listed.include?(one.person) }.map { |one| person(one) },
        recording: there.recording?, tried: there.got_through & listed
      }
    end

    def person(one)
      {
        visit: one.visits.first || one.last_visit, name: one.name, since: one.spans.first.first,
        listed: listed.include?(one.person), person_id: one.person, times: one.visits.size
      }
    end

    # @return [Array<Hash>] people with times of their own, in order, with where each is
    def row
      return [] if standing.empty?

      waiting = there.waiting.to_h { |one| [one.person, one.key] }
      here = there.people.to_h { |one| [one.person, one] }
      standing.map { |slot| slot_row(slot, waiting[slot.person_id], here[slot.person_id]) }
    end

    def slot_row(slot, waits, here)
      {
        id: slot.id, person_id: slot.person_id, name: slot.person.name, email: slot.person.email,
        local_start: @zone.wall(slot.starts_at), turn_at: @zone.wall(slot.turn_at), length_min: slot.length_min,
        told: slot.told_digest == Loading::Rows.digest(slot), state: state(waits, here),
        visit: waits || here&.visits&.first
      }
    end

    def state(waits, here)
      return "waits" if waits
      return "not_yet" unless here

      here.in? ? "in" : "been"
    end
  end
end
