module Views
  # The topics of a sheet in their order, and against the clock.
  class SheetTopics
    # Stands for the review of left-over actions in the running order, which is no topic.
    LEFT_OVER = "left-over"

    # @param meeting [Records::Meeting] with its series
    # @param ledger [Core::CarryForward::Ledger] of its series
    # @param lines [Hash{String => Array<Records::Line>}] by topic; under nil those about what is left over
    # @param left_over [Boolean] whether anything is
    # @param known [Array<Records::Person>] read already
    def initialize(meeting, ledger, lines:, left_over:, known:, now:)
      @meeting, @ledger, @lines, @left_over, @known, @now = meeting, ledger, lines, left_over, known, now
      @zone = meeting.series.zone
      @visits = meeting.visits.to_h { |visit| [visit.topic_id, visit] }
    end

    # @return [Array<Records::Topic>] those that stand here, then those put off from here
    def records
      @records ||= begin
        here = @ledger.topics_at(@meeting.id).map(&:id)
        put_off = @visits.values.select(&:put_off).map(&:topic_id) - here
        found = Records::Topic.where(id: here + put_off).to_h { |topic| [topic.id, topic] }
        (here + put_off).filter_map { |id| found[id] }
      end
    end

    # @return [Array<Hash>] with their lines
    def rows
      slots = running.slots.to_h { |slot| [slot.id, slot] }
      Records::Base.fill(records, :presenter, known: @known)
      numbers = Core::Sheet::Numbering.of(records.map(&:sub), first: first_number)
      records.zip(numbers).map { |topic, number| row(topic, number).merge(slot_view(slots.fetch(topic.id))) }
    end

    # @return [Hash] the running order as a whole
    def order
      left_over = running.slots.find { |slot| slot.id == LEFT_OVER }
      {
        planned_min: running.planned_min, local_end: @zone.wall(running.ends_at), slack_min: running.slack_min,
        left_over: left_over && slot_view(left_over), unfit: running.unfit.map(&:id) - [LEFT_OVER],
        remedies: running.remedies.map { |remedy| {kind: remedy.kind, topic_ids: remedy.ids, to_min: remedy.to_min} }
      }
    end

    def taken?(topic)
      visit = @visits[topic.id]
      Core::Sheet::Settling.taken?(
        visited: !visit.nil?, put_off: visit&.put_off || false, written: @lines.key?(topic.id),
        in_writing: topic.in_writing
      )
    end

    private

    def row(topic, number)
      {
        id: topic.id, number: number, text: topic.text, sub: topic.sub, in_writing: topic.in_writing,
        closed: topic.closed, standing: !topic.standing_id.nil?, shared: !topic.shared_id.nil?, title: topic.title,
        purpose: topic.purpose, length_min: topic.length_min, brought_by_id: topic.brought_by_id,
        presenter: topic.presenter && {id: topic.presenter_id, name: topic.presenter.name},
        carried: topic.meeting_id != @meeting.id, put_off: @visits[topic.id]&.put_off || false,
        present: @meeting.present_topic_id == topic.id && in_session?, taken: taken?(topic),
        lines: LineRows.rows(@lines[topic.id]), version: topic.lock_version
      }
    end

    # What is left over comes first, where there is any or something was written about it.
    def first_number = (@left_over || @lines.key?(nil)) ? 2 : 1

    def slot_view(slot)
      {
        local_start: @zone.wall(slot.starts_at), local_end: @zone.wall(slot.ends_at), used_min: slot.used_min,
        used_s: slot.used_s, over_min: slot.over_min, fits: slot.fits
      }
    end

    # @return [Core::Sheet::RunningOrder]
    def running
      @running ||= Core::Sheet::RunningOrder.new(
        interval: @meeting.interval, entries: [*(review if @left_over), *records.map { |topic| entry(topic) }],
        now: (@now if in_session?), begun_at: @meeting.begun_at,
        present_id: in_session? ? @meeting.present_topic_id || LEFT_OVER : nil
      )
    end

    def review
      Core::Sheet::RunningOrder::Entry.new(
        id: LEFT_OVER, length_min: @meeting.series.left_over_min,
        used_s: (used_s(@meeting.left_over_used_s, nil) if @meeting.begun_at),
        done: in_session? && !@meeting.present_topic_id.nil?
      )
    end

    def entry(topic)
      visit = @visits[topic.id]
      Core::Sheet::RunningOrder::Entry.new(
        id: topic.id, length_min: topic.in_writing ? 0 : topic.length_min,
        used_s: visit && used_s(visit.used_s, topic.id),
        done: !visit.nil? && (visit.put_off || visit.used_s.positive?)
      )
    end

    def used_s(before, topic_id)
      return before unless in_session? && @meeting.present_topic_id == topic_id && @meeting.present_since

      before + (@now - @meeting.present_since).to_i
    end

    def in_session? = @meeting.state == "in_session"
  end
end
