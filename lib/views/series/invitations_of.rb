module Views
  # All a guest is invited to, behind any one of their private links.
  class InvitationsOf < Base
    MOST = 200

    # @param link [Loading::AnswerLink]
    # @return [Hash] none for whoever has an account: they sign in
    def list(link)
      person = link.person
      series = person.guest ? series_of(person.id) : []
      ids = series.map(&:id)
      coming = Records::Meeting.where(series_id: ids).coming(now)
      nexts = coming.group(:series_id).minimum(:starts_at)
      open = waiting(coming, person.id)
      paths = Loading::AnswerLink.paths(ids, person.id)
      {series: series.map { |one| row(one, nexts[one.id], open[one.id] || 0, paths[one.id]) }
        .sort_by { |one| [one[:next_start] ? 0 : 1, one[:next_start].to_i, one[:title]] }}
    end

    private

    def series_of(person_id)
      standing_in = Records::Substitute.where(person_id: person_id).where.not(told_digest: nil)
      meetings = Records::Meeting.coming(now).where(id: standing_in.select(:meeting_id))
      told = Records::Series.shown_to(person_id)
      told.or(Records::Series.where(id: meetings.select(:series_id))).includes(:keeper).limit(MOST).to_a
    end

    def waiting(coming, person_id)
      member = Records::SeriesMember.where(person_id: person_id).where.not(role: "informed").select(:series_id)
      coming.open_to(person_id).where(series_id: member).group(:series_id).count
    end

    def row(series, next_start, open_total, path)
      {id: series.id, title: series.title, keeper: series.keeper.name, path: path, next_start: next_start,
       open_total: open_total}
    end
  end
end
