module Views
  # The polls somebody keeps: those that are open, and what has become of the last ones. What nobody settles, because
  # its keeper has gone, say, comes to the admins after a while, so that no answer was given in vain.
  class TimePolls < Base
    MOST = 60

    def list = {polls: rows(mine.or(left(find(Records::Person, by))))}

    # Those that want something of whoever keeps them, for the Desk: over and not settled, or newly answered.
    # @param me [Records::Person]
    def waiting(me)
      open = rows(mine.asking.or(left(me)), known: [me])
      open.select { |poll| poll[:over] || poll[:news].positive? }
    end

    private

    def mine = Records::TimePoll.where(kept_by_id: by)

    def left(me)
      return Records::TimePoll.none unless me.admin

      Records::TimePoll.asking.where("closes_at < ?", now - Core::Asking::Deadline::LEFT_S)
    end

    def rows(polls, known: [])
      shown = polls.order(Arel.sql("state <> 'open'"), closes_at: :desc, id: :desc).limit(MOST)
      found = Records::Base.fill(shown, :people, :kept_by, known: known)
      times = Records::PollCandidate.where(time_poll_id: found.map(&:id)).group(:time_poll_id).count
      settled = Records::PollCandidate.where(id: found.filter_map(&:settled_candidate_id)).pluck(:id, :starts_at).to_h
      found.map { |poll| row(poll, times.fetch(poll.id, 0), settled) }
    end

    def row(poll, times, settled)
      zone, at = poll.zone, settled[poll.settled_candidate_id]
      {
        id: poll.id, title: poll.title, keeper: (poll.kept_by.name unless poll.kept_by_id == by), state: poll.state,
        times: times, asked: poll.people.size,
        answered: poll.people.count(&:answered_at), over: !poll.takes_answers?(now), by_itself: poll.by_itself,
        closes_local: zone.wall(poll.closes_at), settled_local: at && zone.wall(at), meeting_id: poll.made_meeting_id,
        news: poll.people.count { |one| one.answered_at && one.answered_at > (poll.seen_at || poll.created_at) }
      }
    end
  end
end
