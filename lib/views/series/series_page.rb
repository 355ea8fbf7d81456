module Views
  # A series: what it is, who is asked, how it goes, and what the reader may do with it.
  class SeriesPage < Base
    # @raise [Core::NotFound]
    def show(id)
      load(id)
      {
        id: id, title: @series.title, mark: @series.mark, purpose: @series.purpose,
        wording: @series.wording, quorum: @series.quorum,
        quorum_percent: @series.quorum_percent, vote_rule: @series.vote_rule,
        version: @series.lock_version, keeper: named(@series.keeper), chair: named(@series.chair),
        **times, **where, **answering, **people, **(taking_part? ? going : {next: nil, figures: nil}),
        called: called, told: told, answer_path: answer_path, may: may
      }
    end

    private

    def load(id)
      @series = find(Records::Series.includes(:held_place, members: :person), id)
      @people = @series.members.map(&:person)
      Records::Base.fill([@series], :keeper, :chair, known: @people)
    end

    def times
      {
        time_zone: @series.time_zone, zone_city: @series.zone.city, length_min: @series.length_min,
        rule: @series.rule, **Loading::SeriesSentence.new([@series.id], now: now).of(@series),
        since: Core::WallTime.of_fields(@series.meetings.minimum(:original_start) || @series.local_start).date,
        ended_from: @series.ended_from && Core::WallTime.of_fields(@series.ended_from)
      }
    end

    def where
      {
        place: @series.place, held_place: named(@series.held_place), location: @series.location,
        holidays: holidays,
        also_held: @series.series_places.includes(:place).map { |one| named(one.place) },
        before_min: @series.before_min, after_min: @series.after_min, call: call,
        call_kind: @series.call_kind, call_dial: @series.call_dial, door: @series.door.to_h,
        call_here: SeriesCall.new(@series, by: by, now: now).show(change: may_change?)
      }
    end

    # The way in of the reader.
    def call
      return @series.call&.to_h unless @series.call&.ours

      @series.call.for(url: Loading::WayIn.address(@series, by, at: now)).to_h
    end

    def may_change? = Core::Rights.allow?(:change_series, roles)

    def answering
      {
        outside: organizer_elsewhere, options: @series.options.to_h.except(:remind_min),
        remind_min: @series.remind_min, remind_papers: @series.remind_papers, ask_owners_days: @series.ask_owners_days
      }
    end

    def organizer_elsewhere
      outside = Records::OutsideMeeting.where(id: @series.outside_meeting_id) if @series.outside_meeting_id
      outside&.pick(Arel.sql("coalesce(organizer_name, organizer_email)"))
    end

    def people
      groups = Records::SeriesGroup.where(series_id: @series.id).includes(:group)
      {
        members: Core::Invitation::Roles.sort(@series.members) { |one| [one.role, one.person.name] }
          .map { |member| member_row(member) },
        groups: groups.map { |one| {id: one.group_id, name: one.group.name, role: one.role} }
      }
    end

    # In its minutes, besides their names.
    def called
      by_id = @people.index_by(&:id)
      (@series.called || {}).filter_map { |word, id| {word: word, person: named(by_id[id])} if by_id.key?(id) }
    end

    def deputies = @deputies ||= Records::Deputy.at(@series.id, nil).to_a

    def member_row(member)
      person = member.person
      {
        person_id: person.id, name: person.name, role: member.role, time_zone: person.time_zone,
        guest: person.guest, email: person.guest ? person.email : nil,
        reachable: person.reachable?, via_group_id: member.via_group_id,
        deputy: deputies.any? { |one| one.person_id == person.id }
      }
    end

    def roles = @roles ||= Loading::Access.new(by).roles_in(@series, deputies)

    def taking_part? = !(roles & Core::Rights::TAKE_PART).empty?

    def going
      hidden = Loading::ClosedTopics.hidden_from(by, [@series.id])
      ledger = Loading::Ledgers.of([@series.id], hidden: hidden)[@series.id]
      {next: next_meeting(ledger), figures: figures(ledger)}
    end

    def figures(ledger)
      held = Loading::HeldMeetings.of(@series.id)
      summary = Core::CarryForward::Figures.of(ledger, held, zone: @series.zone)
      on = held.to_h { |meeting| [meeting.id, @series.zone.wall(meeting.starts_at).date] }
      by_meeting = summary.by_meeting.map { |meeting| meeting.to_h.merge(on: on.fetch(meeting.id)) }
      summary.to_h.merge(by_meeting: by_meeting)
    end

    def holidays
      treatment = @series.holidays_treatment
      treatment && {region: @series.holidays_region, treatment: treatment}
    end

    def next_meeting(ledger)
      record = @series.meetings.coming(now).in_order.first or return
      asked = @series.members.reject { |member| member.role == "informed" }.to_h { |one| [one.person_id, one.person] }
      answers = Records::Answer.where(meeting_id: record.id, person_id: asked.keys).to_a
      topics = ledger.topics_at(record.id)
      left_over = ledger.left_over_actions(record.id)
      {
        id: record.id,
        local_start: @series.zone.wall(record.starts_at),
        starts_at: record.starts_at,
        state: record.state,
        left_over: left_over.size,
        length_min: record.interval.length_min,
        planned_min:
          Records::Topic.where(id: topics.map(&:id)).sum(:length_min) + (left_over.empty? ? 0 : @series.left_over_min),
        asked: asked.size,
        answered: answers.size,
        sign_up: record.options.sign_up, sign_up_limit: record.options.sign_up_limit,
        coming: answers.count { |given| given.answer == "accepted" },
        away: answers.select { |given| given.answer == "declined" }.map { |given| asked[given.person_id].name }
      }
    end

    # What was sent, and whether something has changed since. Of a meeting of others, its organizer tells people.
    def told
      return {state: "told", told_at: nil, untold: nil} if @series.outside_meeting_id
      return {state: "never", told_at: nil, untold: nil} unless @series.told_at

      untold = Invitation.new(by: by, clock: @clock).untold(@series)
      {state: untold[:people].zero? ? "told" : "changed", told_at: @series.told_at, untold: untold}
    end

    def answer_path
      return if @series.outside_meeting_id || @series.members.none? { |member| member.person_id == by }

      Loading::AnswerLink.path(@series.id, by)
    end

    def may
      change = may_change?
      {
        change: change, delete: change && Loading::SeriesUse.deletable?(@series),
        see_sheets: Core::Rights.allow?(:see_sheet, roles)
      }
    end
  end
end
