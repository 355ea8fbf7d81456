module Views
  # The one document of a meeting: agenda before it, minutes after.
  class Sheet < Base
    # @return [Hash] the sheet as it is now; issued ones as they were issued
    def show(meeting_id)
      load(meeting_id)
      frozen = Records::MinutesVersion.where(meeting_id: meeting_id).order(:number).last if @meeting.state == "issued"
      shown = (frozen ? frozen.sheet.deep_symbolize_keys : content).merge(around)
      closed(shown[:topics]).sheet(shown)
    end

    # @return [Hash] what is frozen when minutes are issued: the sheet, and what minutes say besides
    def content_of(meeting_id)
      load(meeting_id)
      content.merge(besides)
    end

    private

    def load(meeting_id)
      # Before all else: what is newer may come once more, what is older is never missed.
      @number = Records::Change.last_number(meeting_id)
      @meeting = find(Records::Meeting.includes(series: {members: :person}), meeting_id)
      @series = @meeting.series
      @known = Records::Base.fill([@series], :keeper, :chair, known: @series.members.map(&:person))
      @known += @series.members.map(&:person)
      @zone = @series.zone
      @ledger = Loading::Ledgers.of([@series.id])[@series.id]
      @lines = LineRows.load(@meeting.lines.standing).group_by(&:topic_id)
      @left_over = @ledger.left_over_actions(meeting_id)
      @agenda = SheetTopics.new(
        @meeting, @ledger, lines: @lines, left_over: @left_over.any?, known: @known, now: now
      )
    end

    def content
      @content ||= {
        id: @meeting.id,
        series_id: @series.id,
        series_title: @series.title,
        state: @meeting.state,
        place: @meeting.location,
        starts_at: @meeting.starts_at,
        ends_at: @meeting.ends_at,
        local_start: @zone.wall(@meeting.starts_at),
        local_end: @zone.wall(@meeting.ends_at),
        time_zone: @zone.name,
        zone_city: @zone.city,
        length_min: @meeting.interval.length_min,
        keeper: person(@series.keeper),
        chair: person(@series.chair),
        called_off_reason: @meeting.called_off_reason,
        begun_at: @meeting.begun_at,
        held_on: @meeting.held_on(@zone),
        closed_at: @meeting.closed_at,
        issued_at: @meeting.issued_at,
        present_topic_id: @meeting.present_topic_id,
        left_over_min: @series.left_over_min,
        quorum: here.needed,
        quorate: here.quorate?,
        below_quorum: below_quorum,
        people: people,
        left_over: left_over,
        left_over_lines: LineRows.rows(@lines[nil]),
        topics: @agenda.rows,
        running_order: @agenda.order,
        version: @meeting.lock_version
      }
    end

    # Which meeting of the series it was, the next one, files, and the numbers decisions have in the register.
    def besides
      held = @ledger.meetings.select { |meeting| Core::Sheet::Lifecycle::HELD.include?(meeting.state) }
      decisions = Decisions.new(by: by, clock: @clock).list(@series.id)[:decisions]
      {
        meeting_number: held.index { |meeting| meeting.id == @meeting.id }&.succ,
        next_meeting: neighbour(@ledger.next_after(@meeting.id)),
        **files,
        decision_numbers: decisions.select { |one| one[:meeting_id] == @meeting.id }
          .to_h { |one| [one[:line_id], one[:number]] }
      }
    end

    # Where there are closed topics, it is said who reads them, so that others can be asked to leave.
    def people
      return here.rows unless topics.any?(&:closed)

      readers = Loading::ClosedTopics.readers(@series, @meeting.id)
      here.rows.map { |row| row.merge(reads_closed: readers.include?(row[:id])) }
    end

    # Names of papers; those of closed topics apart.
    def files
      secret = topics.select(&:closed).map(&:id)
      apart, open = Loading::Papers.of(@meeting.id, topics).partition { |paper| secret.include?(paper[:topic_id]) }
      {files: open.map { |paper| paper[:name] }, closed_files: apart.map { |paper| paper[:name] }}
    end

    # What is hidden from the reader: what was closed when it was frozen, and what has been closed since.
    # @param rows [Array<Hash>] topics
    # @return [Core::Sheet::ClosedTopics]
    def closed(rows)
      return Core::Sheet::ClosedTopics.new([]) if may?(:see_closed)

      since = Records::Topic.where(series_id: @series.id, closed: true).ids
      Core::Sheet::ClosedTopics.new(since + rows.select { |row| row[:closed] }.map { |row| row[:id] })
    end

    def may?(right)
      @roles ||= Loading::Access.new(by).roles_in(@series, deputies)
      Core::Rights.allow?(right, @roles)
    end

    # What is held for it besides its place.
    def equipment
      return [] if @meeting.own_where

      Records::Place.where(id: Records::SeriesPlace.where(series_id: @series.id).select(:place_id)).order(:name)
        .pluck(:name)
    end

    def below_quorum = here.below_quorum(@lines.values.flatten)

    # What changes around a sheet even when it is frozen.
    def around
      index = @ledger.meetings.index { |meeting| meeting.id == @meeting.id }
      {
        state: @meeting.state,
        may_join: may?(:move_meeting) && @series.rule.nil? && @ledger.meetings.one? &&
          %w[closed issued].include?(@meeting.state),
        **calls.show,
        mark: @series.mark,
        preparations: may?(:move_meeting) ? Preparations.of(@meeting) : [],
        own: own, sign_up: @meeting.options.sign_up,
        sign_up_limit: @meeting.options.sign_up_limit, equipment: equipment,
        next: neighbour(@ledger.meetings[index + 1]),
        previous: (neighbour(@ledger.meetings[index - 1]) if index.positive?),
        carries: carries,
        now: now,
        number: @number,
        gaps: gaps,
        speakers: in_session? ? here.speakers : [],
        writers: here.writers(now),
        vote_rule: @series.vote_rule,
        deputies: deputy_rows,
        **issued,
        papers: Loading::Papers.of(@meeting.id, topics),
        **agendas.around,
        may: {
          write: may?(:write_minutes), hold: may?(:hold_meeting), bring_topic: may?(:bring_topic),
          name_deputy: may?(:name_deputy), see_closed: may?(:see_closed)
        }
      }
    end

    def agendas = Agendas.new(@meeting, topics, @ledger, zone: @zone, known: @known)

    def calls = @calls ||= SheetCall.new(@meeting, -> { here.keys }, by: by, now: now)

    def deputies
      @deputies ||= Records::Base.fill(
        Records::Deputy.at(@series.id, @meeting.id).order(:created_at, :id), :person, known: @known
      )
    end

    def deputy_rows
      deputies.map { |one| {id: one.person_id, name: one.person.name, series: one.meeting_id.nil?} }
    end

    # What was issued so far, and which minutes wait for this meeting to approve them.
    def issued
      {
        correcting: @meeting.correcting_reason, versions: versions,
        to_approve: %w[in_session closed].include?(@meeting.state) ? IssuedVersions.to_approve(@meeting) : []
      }
    end

    def versions
      return [] unless @meeting.issued_at

      IssuedVersions.of(@meeting.id, @zone, closed: (closed([]) unless may?(:see_closed)))
    end

    # While it is written. @return [Array<Hash>]
    def gaps = %w[in_session closed].include?(@meeting.state) ? SheetGaps.of(content) : []

    # What is set for this meeting alone, for the form that changes it.
    def own
      held = @meeting.own_where ? @meeting : @series
      {
        where: @meeting.own_where, call_kind: held.call_kind, place_id: held.place_id, place: held.place,
        before_min: @series.before_min, after_min: @series.after_min
      }
    end

    def neighbour(meeting) =
      meeting && {id: meeting.id, local_start: @zone.wall(meeting.starts_at), state: meeting.state}

    # What closing now would take to the next meeting: open actions, and topics not taken.
    def carries
      following = @ledger.next_after(@meeting.id)
      open = @ledger.actions.count { |action| action.state == :open && action.raised_at <= @meeting.starts_at }
      going = topics.count { |one| one.settled_at_meeting_id.nil? && one.standing_id.nil? && !@agenda.taken?(one) }
      {actions: open, topics: going, to: neighbour(following)}
    end

    # Who is asked and who is here. @return [SheetPeople]
    def here = @here ||= SheetPeople.new(@meeting)

    def left_over
      reviews = @meeting.reviews.to_h { |review| [review.action_item_id, review] }
      records = Records::ActionItem.where(id: @left_over.map(&:id)).to_h { |action| [action.id, action] }
      views = ActionRows.of(
        @left_over.filter_map { |action| records[action.id] }, {@series.id => @ledger}, by: by, now: now,
        up_to: @meeting.starts_at, known: @known
      )
      views.map do |view|
        review = reviews[view[:id]]
        view.merge(review: review && {verdict: review.verdict, word: review.word})
      end
    end

    # @return [Array<Records::Topic>]
    def topics = @agenda.records

    def in_session? = @meeting.state == "in_session"

    def person(record) = {id: record.id, name: record.name}
  end
end
