require_relative "../web_helper"

# What carries over, seen from further away or for one owner, and over all series.
RSpec.describe "What carries over" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:rounds) do
    clock.now = Clock.now - 15 * 604_800
    start = "#{today - 7 * 14}T09:30"
    series(marit, {required: [wen, lars]}, start: start, rule: "FREQ=WEEKLY;COUNT=20")
  end

  before do
    hold(meeting_ids(rounds).first(13))
    clock.back
    use(UseCases::Actions, marit).move(id: Records::ActionItem.find_by!(text: "Work 2").id, state: "done")
    sign_in_as("Marit Hauge")
  end

  # In each an action for Wen and Lars in turn.
  def hold(meetings)
    meetings.each_with_index do |meeting, i|
      clock.now = Records::Meeting.find(meeting).starts_at
      state(meeting, marit, "in_session")
      raise_action(meeting, marit, "Work #{i}", owners: [i.even? ? wen : lars])
      clock.now += 3_000
      state(meeting, marit, "closed")
    end
  end

  it "is drawn as far back as one wants, for whom one wants, with what it comes to in figures" do
    visit "/series/#{rounds}"
    expect(page).to have_css ".names a", count: 13
    choose_from "Closed ones", "none"
    expect(page).to have_css ".names a", count: 12
    expect(page).to have_content "1 action of these meetings is not drawn."
    click_button "Draw all closed ones"
    expect(page).to have_css ".names a", count: 13
    expect(page).to have_css "svg.top .dot", count: 14
    choose_from "Meetings back", "all"
    expect(page).to have_css "svg.top .dot", count: 16
    choose_from "Whose", "Lars Ekeli"
    expect(page).to have_css ".names a", count: 6
    expect(page).to have_content "10 actions raised, 1 closed, 12 open now."
    find("summary", text: "As a table").click
    expect(page).to have_css ".figures tbody tr", count: 10
    expect_accessible
    click_link "Work 11, Lars Ekeli: open, carried 1 time"
    expect(page).to have_css ".line", text: "Work 11"
  end

  it "is drawn for all series one runs, on one page" do
    clock.now = Clock.now - 14 * 86_400
    boats = series(marit, {required: [wen, lars]}, title: "Boats", start: "#{today - 7}T09:30")
    hold(meeting_ids(boats).first(1))
    clock.back
    visit "/actions"
    click_link "As strands"
    expect(page).to have_css "h2", text: "Boats"
    expect(page).to have_css ".names a", count: 13
    choose_from "Whose", "Lars Ekeli"
    expect(page).to have_css ".names a", count: 6
    expect(page).to have_no_css "h2", text: "Boats"
    expect_accessible
  end
end
