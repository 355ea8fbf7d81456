module UseCases
  # Somebody leaves a series by themselves; whoever keeps it hears, and their calendar is tidied.
  class SeriesLeaving < Base
    # @raise [Core::Conflict] codes "outside", "runs-it" and "in-a-group"
    def leave(series_id, word: nil)
      write do
        series = find(Records::Series.lock.includes(:keeper), series_id)
        member = series.members.find_by(person_id: by) or next # sent again
        refuse(series, member)
        role = member.role
        SeriesMembers.new(by: by, clock: @clock).take_off(series, member)
        tell_keeper(series, word)
        take_out(series, role)
      end
      nil
    end

    private

    def refuse(series, member)
      stop("outside", "Somebody else invites to it. Answer that you cannot come.") if series.outside_meeting_id
      stop("runs-it", "You run this series. Hand it to somebody else first.") if series.run_by?(by)
      return unless member.via_group_id

      group = Records::Group.where(id: member.via_group_id).pick(:name)
      stop("in-a-group", "You are asked with the group “#{group}”. Whoever keeps that group can take you off it.")
    end

    def stop(code, words) = raise(Core::Conflict.new(words, code: code))

    # Out of their calendar, where it stands in it.
    def take_out(series, role)
      telling = Records::Telling.includes(:person, :sending)
        .find_by(series_id: series.id, person_id: by, kind: "request") or return
      content = telling.sending.content && Core::Invitation::Content.of(telling.sending.content)
      one = Loading::Recipients::Recipient.new(
        person: telling.person, role: role.to_sym, kind: :taken_off, before: content, role_before: nil
      )
      calendar = Loading::InvitationMail.new(series, now: now)
        .parts(one, content: content, note: nil, wording: nil, sequence: series.sequence + 1)[:calendar]
      Outbox.new(clock: @clock).put(
        reason: "gone:#{series.id}:#{by}:#{now.to_i}", series_id: series.id, to: telling.person, calendar: calendar,
        **Mailing::Letters.you_left(title: series.title, keeper: series.keeper.name)
      )
      telling.update!(kind: "cancel")
    end

    def tell_keeper(series, word)
      name = Records::Person.where(id: by).pick(:name)
      Records::Event.note("changed", "#{name} has left#{": #{words(word)}" if words(word)}", series_id: series.id,
        now: now, person_id: by)
      Outbox.new(clock: @clock).put(
        reason: "left:#{series.id}:#{by}:#{now.to_i}", series_id: series.id, to: series.keeper, about: :none,
        **Mailing::Letters.left(
          title: series.title, name: name, word: words(word), url: "#{Settings.origin}/series/#{series.id}"
        )
      )
      Records::Call.look_again(series.id, now)
    end
  end
end
