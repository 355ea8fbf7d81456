module UseCases
  # Making a series, changing it, and seeing how it goes.
  class Series < Base
    PAGE_SIZE = 50
    # Dates of an endless run are laid out anew when less than this is left of them.
    LAY_OUT_AGAIN_MONTHS = 12

    # What a rule would mean, before anything is kept.
    # @param run [Hash] local_start, time_zone, length_min, rule, dates
    def preview(run)
      run = read_run(run).refuse_past(now)
      dates = run.between(now, horizon)
      {
        sentence: run.sentence,
        count: run.count,
        last_on: run.last_date,
        endless: run.endless?,
        listed_until: run.endless? ? run.zone.wall(horizon).date : nil,
        local_start: run.start,
        dates:
          dates.map do |date|
            {local_start: date.wall, starts_at: date.starts_at, ends_at: date.ends_at, note: date.note}
          end
      }
    end

    # @param id [String] key made by the browser; a repeated call changes nothing
    # @param members [Array<Hash>] person_id and role
    # @param moves [Array<Hash>] dates of the rule that are to be at another time: from and to on the wall
    # @param hold_id [String, nil] the hold this settles
    # @param place_anyway [Boolean] though the place has too few seats or is closed then
    def create(
      id:, title:, run:, members:, keeper_id: nil, chair_id: nil, moves: [], hold_id: nil, groups: [], guests: [],
      also_place_ids: [], place_anyway: false, **rest
    )
      wish = head(title: title, keeper_id: keeper_id || by, chair_id: chair_id || keeper_id || by, **rest)
      read = under("/run") { read_run(run) }
      once(Records::Series, id) do
        under("/run") { read.refuse_past(now) }
        series = Records::Series.create!(
          id: id, **wish, time_zone: read.zone.name, local_start: read.start.to_time, length_min: read.length_min,
          rule: read.rule&.to_text(zone: read.zone), laid_out_until: (horizon if read.endless?)
        )
        lay_out(series, read, Time.at(0))
        SeriesMembers.new(by: by, clock: @clock).set(series, members, groups: groups, guests: guests)
        Records::Event.note("made", "Made: #{read.sentence}", series_id: id, now: now, person_id: by)
        settle_holds(series, hold_id)
        moves.each_with_index { |move, i| move_date(series, move, "/moves/#{i}") }
        hold_also(series, also_place_ids)
        check_place(series) unless place_anyway
        book(series)
      end
      show(id)
    end

    # Title, purpose, place and people. A change people must hear of is counted, so that it can be told.
    # @param version [Integer] the version seen
    def change(
      id:, version:, title:, members:, keeper_id: nil, chair_id: nil, groups: nil, guests: [], also_place_ids: nil,
      place_anyway: false, **rest
    )
      write do
        series = find(Records::Series, id)
        wish =
          head(title: title, keeper_id: keeper_id || series.keeper_id, chair_id: chair_id || series.chair_id, **rest)
        series.lock!
        series.assign_attributes(wish)
        changed_people = SeriesMembers.new(by: by, clock: @clock).set(series, members, groups: groups, guests: guests)
        other_equipment = also_place_ids && hold_also(series, also_place_ids)
        next unless series.changed? || changed_people || other_equipment
        raise Core::Stale.new(version: series.lock_version) if version != series.lock_version

        Records::Event.note(
          "changed", "#{changed_words(series, changed_people)} changed", series_id: id, now: now, person_id: by
        )
        series.updated_at = now
        other_place = series.place_id_changed? || other_equipment
        rebook = other_equipment || !(series.changed & %w[place_id before_min after_min]).empty?
        more_room = !(series.changed & %w[sign_up sign_up_limit]).empty?
        # Read anew, with the options as they still are.
        SignUps
          .new(by: by, clock: @clock)
          .changing(
            *(more_room ? Records::Meeting.where(series_id: id).coming(now).includes(:series).in_order : [])
          ) { series.save! }
        check_place(series) if other_place && !place_anyway
        book(series) if rebook
      end
      show(id)
    end

    def list(page: 1)
      series = Records::Series.shown_to(by).order(:title, :id)
      shown = series.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).includes(:keeper, :held_place).to_a
      {series: summaries(shown), page: page, page_size: PAGE_SIZE, total: series.count}
    end

    def show(id)
      series = find(Records::Series.includes(:keeper, :chair, :held_place, members: :person), id)
      ledger = Ledgers.of([id])[id]
      taking_part = !(Access.new(by).roles(id) & Core::Rights::TAKE_PART).empty?
      {
        id: id,
        title: series.title,
        purpose: series.purpose,
        place: series.place,
        time_zone: series.time_zone,
        held_place: series.held_place && {id: series.place_id, name: series.held_place.name},
        also_held: series.series_places.includes(:place).map { |one| {id: one.place_id, name: one.place.name} },
        before_min: series.before_min,
        after_min: series.after_min,
        location: series.location,
        call: series.call&.to_h,
        outside:
          series.outside_meeting_id &&
            Records::OutsideMeeting.where(id: series.outside_meeting_id).pick(
              Arel.sql("coalesce(organizer_name, organizer_email)")
            ),
        options: series.options.to_h.except(:remind_min),
        remind_min: series.remind_min,
        remind_papers: series.remind_papers,
        wording: series.wording,
        zone_place: series.zone.place,
        length_min: series.length_min,
        rule: series.rule,
        quorum: series.quorum,
        **rule_words(series),
        keeper: person(series.keeper),
        chair: person(series.chair),
        since: since(series),
        members:
          series
            .members
            .sort_by do |member|
              [Core::Invitation::Request::ROLES.keys.index(member.role.to_sym), member.person.name]
            end
            .map do |member|
              {
                person_id: member.person_id, name: member.person.name, role: member.role,
                time_zone: member.person.time_zone, guest: member.person.guest,
                email: member.person.guest ? member.person.email : nil, via_group_id: member.via_group_id
              }
            end,
        groups:
          Records::SeriesGroup
            .where(series_id: id)
            .includes(:group)
            .map { |one| {id: one.group_id, name: one.group.name, role: one.role} },
        ended_from: series.ended_from && Core::WallTime.of_fields(series.ended_from),
        told: told(series),
        next: (next_meeting(series, ledger) if taking_part),
        figures: (figures(ledger, id) if taking_part),
        answer_path:
          (
            if series.members.any? { |member| member.person_id == by } && !series.outside_meeting_id
              AnswerLinks.path(id, by)
            end
          ),
        may: may(series),
        version: series.lock_version
      }
    end

    # A series nobody has been told of and nothing was done in can be deleted; any other is ended.
    def delete(id)
      write do
        series = find(Records::Series.lock, id)
        unless deletable?(series)
          raise Core::Conflict.new(
            "People have been told of this series, or it holds something. End it instead.", code: "in-use"
          )
        end

        meetings = Records::Meeting.where(series_id: id)
        HANGING_ON.each { |records| records.where(meeting_id: meetings.select(:id)).delete_all }
        OF_SERIES.each { |records| records.where(series_id: id).delete_all }
        meetings.delete_all
        Records::Hold.where(series_id: id).update_all(series_id: nil)
        series.delete
      end
    end

    # The picture of actions running through meetings.
    def strands(id)
      series = find(Records::Series, id)
      ledger = Ledgers.of([id], topics: false)[id]
      actions = Records::ActionItem.where(series_id: id).to_a
      strands = Core::CarryForward::Strands.new(ledger, actions.map(&:to_core), now: now)
      rows = strands.rows
      by_id = actions.to_h { |action| [action.id, action] }
      views = ActionViews.of(rows.map { |row| by_id.fetch(row.action_id) }, {id => ledger}, by: by)
      {
        columns: strands.columns.map { |meeting| column(meeting, series.zone) },
        next_column: strands.next_column,
        rows:
          rows
            .zip(views)
            .map { |row, action| {action: action, from: row.from, to: row.to, thickness: row.thickness} }
      }
    end

    # The meetings of a series: those to come in order, or those gone, latest first.
    def meetings(id, gone: false, page: 1)
      series = find(Records::Series, id)
      all = series.meetings
      all = all.where(state: "issued") unless (Access.new(by).roles(id) & Core::Rights::TAKE_PART).any? || !gone
      coming = all.where("ends_at > ?", now).where.not(state: %w[closed issued])
      chosen = gone ? all.where.not(id: coming.select(:id)).order(starts_at: :desc, id: :desc) : coming.in_order
      shown = chosen.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).to_a
      lines = Records::Line.where(meeting_id: shown.map(&:id)).group(:meeting_id, :kind).count
      {
        meetings: shown.map { |meeting| listed(meeting, series.zone, lines) }, page: page, page_size: PAGE_SIZE,
        total: chosen.count
      }
    end

    # Lays out further dates of endless runs as time goes on; for the worker.
    # @return [Integer] how many series were continued
    # @param faults [Faults] in which each series stands alone
    # @return [Integer] of how many series
    def lay_out_further(faults = Faults.new(clock: @clock))
      due = Records::Series.where("laid_out_until < ?", now + LAY_OUT_AGAIN_MONTHS * 30 * 86_400).to_a
      due.count do |series|
        faults.attempt("laying_out_series", series.id) do
          write do
            series.lock!
            lay_out(series, series.to_run, series.laid_out_until)
            book_free(series)
            series.update!(laid_out_until: horizon)
          end
          true
        end
      end
    end

    HANGING_ON = [Records::Reply, Records::PlaceBooking, Records::Change].freeze
    OF_SERIES = [
      Records::Event, Records::SeriesPlace, Records::SeriesMember, Records::SeriesGroup, Records::LinkSerial
    ].freeze
    CONTENT = [
      Records::Topic, Records::ActionItem, Records::Paper, Records::Mail, Records::Sending, Records::Counter,
      Records::IncomingMail
    ].freeze

    private

    # Places besides its own. @return [Boolean] whether they are others now
    def hold_also(series, place_ids)
      wish = place_ids.uniq - [series.place_id]
      unless Records::Place.here.where(id: wish).count == wish.size
        raise Core::Invalid.new("A place chosen is not here any more.", pointer: "/alsoPlaceIds")
      end

      standing = Records::SeriesPlace.where(series_id: series.id).pluck(:place_id)
      return false if standing.sort == wish.sort

      Records::SeriesPlace.where(series_id: series.id, place_id: standing - wish).delete_all
      (wish - standing).each { |place_id| Records::SeriesPlace.create!(series_id: series.id, place_id: place_id) }
      series.series_places.reset
      true
    end

    # A hold becomes the meeting: the one named, or one's own at the same time, which would else keep the place from it.
    def settle_holds(series, hold_id)
      first = series.meetings.in_order.first
      mine = Records::Hold.where(kept_by_id: by, released_at: nil)
      mine
        .where(id: hold_id)
        .or(mine.where(place_id: series.place_id, starts_at: first&.starts_at))
        .update_all(released_at: now)
    end

    def deletable?(series)
      if series.told_at || series.outside_meeting_id ||
          Records::Meeting.where(series_id: series.id).where(state: %w[in_session closed issued]).exists?
        return false
      end

      CONTENT.none? { |records| records.where(series_id: series.id).exists? } &&
        !Records::Substitute.of_series(series.id).exists? &&
        !Records::Line.joins(:meeting).where(meetings: {series_id: series.id}).exists?
    end

    def horizon = (now.to_datetime >> Core::Recurrence::Run::HORIZON_MONTHS).to_time.utc

    def read_run(run)
      Core::Recurrence::Run.read(start: run[:local_start], zone: run[:time_zone], length_min: run[:length_min],
        rule: run[:rule], dates: run[:dates] || [])
    end

    # Faults of something that stands under a name of its own in the wish.
    def under(pointer)
      yield
    rescue Core::Invalid => error
      faults = error.faults.map { |fault| fault.merge(pointer: "#{pointer}#{fault[:pointer]}") }
      raise Core::Invalid.new(error.message, faults: faults, code: error.code, **error.details.except(:errors))
    end

    CHANGED = {
      "title" => "title",
      "purpose" => "purpose",
      "place" => "place",
      "place_id" => "place",
      "keeper_id" => "keeper",
      "chair_id" => "chair",
      "quorum" => "quorum",
      "call_url" => "call",
      "call_passcode" => "call",
      "call_dial_in" => "call",
      "pass_on" => "options",
      "answers_asked" => "options",
      "sign_up" => "options",
      "sign_up_limit" => "options"
    }.freeze

    def changed_words(series, people) =
      Core::Words
        .list([*series.changed.filter_map { |name| CHANGED[name] }.uniq, *("people" if people)])
        .then { |words| words.empty? ? "set-up times" : words }
        .capitalize

    def head(
      title:, keeper_id:, chair_id:, purpose: nil, place: nil, quorum: nil, place_id: nil, before_min: 0,
      after_min: 0, remind_min: 0, remind_papers: true, wording: nil, call: nil, options: nil
    )
      known = Records::Person.where(id: [keeper_id, chair_id]).pluck(:id)
      unless known.include?(keeper_id)
        raise Core::Invalid.new("Choose a keeper from the people here.", pointer: "/keeperId")
      end
      unless known.include?(chair_id)
        raise Core::Invalid.new("Choose a chair from the people here.", pointer: "/chairId")
      end

      online = call_of(call || {})
      {
        call_url: online&.url,
        call_passcode: online&.passcode,
        call_dial_in: online&.dial_in,
        **(options || {}),
        title: words(title, pointer: "/title", missing: "Give the series a title."),
        purpose: words(purpose),
        place: words(place),
        keeper_id: keeper_id,
        chair_id: chair_id,
        quorum: quorum,
        place_id: place_id,
        before_min: before_min,
        after_min: after_min,
        remind_min: remind_min,
        remind_papers: remind_papers,
        wording: words(wording)&.then { |text| Core::Invitation::Wording.check(text, pointer: "/wording") }
      }
    end

    def call_of(call) = Core::Invitation::Call.read(
      **Core::Invitation::Call::NAMES.to_h { |name| [name, words(call[name])] },
      pointers: {
        url: "/call/url", passcode: "/call/passcode", dial_in: "/call/dialIn"
      }
    )

    # One date of the rule at another time, from the start.
    def move_date(series, move, pointer)
      from, to =
        Core::WallTime.parse(move[:from], pointer: "#{pointer}/from"),
        Core::WallTime.parse(move[:to], pointer: "#{pointer}/to")
      meeting = series.meetings.find_by(original_start: from.to_time) or
        raise Core::Invalid.new("The rule gives no meeting at that time.", pointer: "#{pointer}/from")
      starts_at = series.zone.instant(to)
      raise Core::Invalid.new("That is past.", pointer: "#{pointer}/to", code: "past") if starts_at <= now
      if starts_at > now + Core::Recurrence::Run::LATEST_YEARS * 366 * 86_400
        raise Core::Invalid.new("That is too far ahead.", pointer: "#{pointer}/to")
      end

      meeting.update!(starts_at: starts_at, ends_at: starts_at + series.length_min * 60, moved_at: now)
    end

    def check_place(series) = Places.new(by: by, clock: @clock).check_fit(
      to_book(series), people: series.members.reload.count { |member| member.role != "informed" }
    )

    def to_book(series) =
      series
        .meetings
        .where(state: "planned")
        .where("starts_at > ?", now)
        .in_order
        .each { |meeting| meeting.association(:series).target = series }

    def book(series) = Places.new(by: by, clock: @clock).book(
      to_book(series), before_min: series.before_min, after_min: series.after_min
    )

    # For dates laid out later: where the place is taken by then, the meeting stays without it.
    def book_free(series)
      booked = Records::PlaceBooking.where(meeting_id: series.meetings.select(:id)).pluck(:meeting_id)
      to_book(series).reject { |meeting| booked.include?(meeting.id) }.each do |meeting|
        Places.new(by: by, clock: @clock).book([meeting], before_min: series.before_min, after_min: series.after_min)
      rescue Core::Conflict
        next
      end
    end

    def lay_out(series, run, from)
      rows = run.between(from, horizon).map do |date|
        {id: Records::Key.make(now), series_id: series.id, original_start: date.wall.to_time, starts_at: date.starts_at,
         ends_at: date.ends_at, created_at: now, updated_at: now}
      end
      known = series.meetings.pluck(:original_start).to_h { |start| [start, true] }
      rows = rows.reject { |row| known.key?(row[:original_start]) }
      rows.each_slice(500) { |some| Records::Meeting.insert_all!(some) }
    end

    def by_hand(series) =
      if series.rule
        []
      else
        series
          .meetings
          .where("original_start >= ?", series.local_start)
          .order(:original_start)
          .pluck(:original_start)
          .drop(1)
          .map { |start| Core::WallTime.of_fields(start) }
      end

    # The rule as a sentence, with the dates of an earlier one that are still to come.
    def rule_words(series, earlier = earlier_of([series.id]))
      run = series.to_run(by_hand: by_hand(series))
      left = (earlier[series.id] || []).map do |meeting|
        Core::Recurrence::Sentence::Earlier.new(
          wall: series.zone.wall(meeting.starts_at), length_min: meeting.interval.length_min
        )
      end
      {
        sentence: Core::Recurrence::Sentence.with_earlier(run, left),
        how_often: series.rule ? Core::Recurrence::Sentence.new(run).how_often : nil
      }
    end

    def earlier_of(series_ids)
      Records::Meeting
        .joins(:series)
        .where(series_id: series_ids, state: "planned")
        .where("meetings.original_start < series.local_start and meetings.ends_at > ?", now)
        .in_order
        .group_by(&:series_id)
    end

    def since(series) = Core::WallTime.of_fields(series.local_start).date

    def person(record) = {id: record.id, name: record.name}

    # What was sent, and whether something has changed since.
    def told(series)
      return {state: "told", told_at: nil, untold: nil} if series.outside_meeting_id # whoever organises it tells people
      return {state: "never", told_at: nil, untold: nil} unless series.told_at

      untold = Invitations.new(by: by, clock: @clock).untold(series.id)
      {state: untold[:people].zero? ? "told" : "changed", told_at: series.told_at, untold: untold}
    end

    def next_meeting(series, ledger)
      record = series.meetings.coming(now).in_order.first or return
      answers = Records::Reply.where(meeting_id: record.id).includes(:person).to_a
      asked = series.members.reject { |member| member.role == "informed" }.map(&:person_id)
      answers = answers.select { |reply| asked.include?(reply.person_id) }
      topics = ledger.topics_at(record.id)
      left_over = ledger.left_over_actions(record.id)
      {
        id: record.id,
        local_start: series.zone.wall(record.starts_at),
        starts_at: record.starts_at,
        state: record.state,
        left_over: left_over.size,
        length_min: record.interval.length_min,
        planned_min:
          Records::Topic.where(id: topics.map(&:id)).sum(:length_min) + (left_over.empty? ? 0 : series.left_over_min),
        asked: asked.size,
        answered: answers.size,
        away: answers.select { |reply| reply.answer == "declined" }.map { |reply| reply.person.name }
      }
    end

    def figures(ledger, id)
      Core::CarryForward::Figures.of(ledger, Records::ActionItem.where(series_id: id).map(&:to_core)).to_h
    end

    def column(meeting, zone)
      {id: meeting.id, on: zone.wall(meeting.starts_at).date, state: meeting.state}
    end

    def listed(meeting, zone, lines)
      {
        id: meeting.id, local_start: zone.wall(meeting.starts_at), starts_at: meeting.starts_at,
        ends_at: meeting.ends_at, state: meeting.state, called_off_reason: meeting.called_off_reason,
        decisions: lines[[meeting.id, "decision"]] || 0, actions: lines[[meeting.id, "action"]] || 0
      }
    end

    def summaries(shown)
      coming = Records::Meeting.where(series_id: shown.map(&:id)).coming(now).group(:series_id).minimum(:starts_at)
      open = Records::ActionItem.where(series_id: shown.map(&:id), state: "open").group(:series_id).count
      earlier = earlier_of(shown.map(&:id))
      shown.map do |series|
        {
          id: series.id, title: series.title, **rule_words(series, earlier), keeper: person(series.keeper),
          place: series.location, open_actions: open[series.id] || 0, next_start: coming[series.id],
          next_local_start: coming[series.id] && series.zone.wall(coming[series.id])
        }
      end
    end

    def may(series)
      roles = Access.new(by).roles(series.id)
      change = Core::Rights.allow?(:change_series, roles)
      {change: change, delete: change && deletable?(series), see_sheets: Core::Rights.allow?(:see_sheet, roles)}
    end
  end
end
