require_relative "../api_helper"

# Whoever missed meetings sees in one page what was decided and given to whom since they were last there.
RSpec.describe "Catching up" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:week) { series(marit, {required: ines}, start: "#{today + 1}T09:30", rule: "FREQ=DAILY;COUNT=5") }
  let(:meetings) { meeting_ids(week) }

  # @param marks [Hash] person to what they were marked as
  def hold(meeting, marks, *lines)
    clock.now = Records::Meeting.find(meeting).starts_at
    state(meeting, marit, "in_session")
    marks.each { |id, mark| use(UseCases::Attendance, marit).attend(meeting_id: meeting, person_id: id, state: mark) }
    lines.each { |text| use(UseCases::Minutes, marit).add(id: key, meeting_id: meeting, text: text) }
    %w[closed issued].each { |to| state(meeting, marit, to) }
  end

  before do
    hold(meetings[0], {ines => "present"}, "Agreed: red buoys")
    hold(
      meetings[1], {ines => "apologies", marit => "present"}, "Agreed: two boats", "Ines to order rope", "Wind north"
    )
    hold(meetings[2], {}, "Agreed: nobody was marked")
    hold(meetings[3], {ines => "absent", marit => "present"}, "Marit to sign")
    clock.now = Records::Meeting.find(meetings[4]).starts_at - 3_600
  end

  it "shows decisions and actions of the meetings missed since one was last there", :aggregate_failures do
    sign_in(ines)
    page = call(:get, "/series/#{week}/catching-up")
    expect([page["since"], page["meetings"].map { |one| one["on"] }]).to eq [
      (today + 1).iso8601, [(today + 2).iso8601, (today + 4).iso8601]
    ]
    first = page["meetings"].first
    expect(first["decisions"].map { |one| one["text"] }).to eq ["Two boats"]
    expect(first["actions"].map { |one| one.values_at("text", "mine") }).to eq [["Order rope", true]]
    sign_in(marit)
    expect(call(:get, "/series/#{week}/catching-up")["meetings"].map { |one| one["on"] })
      .to eq []
  end

  it "is pointed to from the Desk, until it is put aside or one is there again, and by the link of the invitation",
    :aggregate_failures do
    sign_in(ines)
    missed = call(:get, "/desk")["missed"]
    expect(missed.map { |one| one.values_at("title", "meetings") }).to eq [["Monday mooring round", 2]]
    token = Loading::AnswerLink.token(week, ines)
    link = call(:get, "/answer-links/#{week}/#{ines}/#{token}")
    expect(link["missed"].size).to eq 2
    call(:put, "/desk/notices", {notice: missed.first["notice"], seen: true})
    expect(call(:get, "/desk")["missed"]).to eq []
    sign_in(person("Olav Dahl"))
    call(:get, "/series/#{week}/catching-up")
    expect(status).to eq 404
  end
end
