require_relative "../web_helper"

# All actions in one list: narrowed, several at once, a word on how it goes, to another series, in from a file; and what
# owners say by their private link.
RSpec.describe "Actions" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:boats) { series(marit, {required: wen}, title: "Boats", **coming) }
  let(:paint) { series(marit, {}, title: "Paint", **coming) }
  let(:coming) do
    # A past Monday, and as many as are needed for one to come.
    {start: (today - 14).strftime("%Y-%m-%dT09:30"), rule: "FREQ=WEEKLY;COUNT=4"}
  end

  def add(text, owners: [], due_on: nil)
    id = key
    use(UseCases::Actions, marit).add(
      series_id: boats, actions: [{id: id, text: text, owner_ids: owners, due_on: due_on}]
    )
    id
  end

  # A press with the mouse would land on one of its buttons.
  def on_card(text, key)
    find(".card", text: text).execute_script("this.focus()")
    type(key)
  end

  before do
    clock.now = Clock.now - 21 * 86_400
    boats && paint
    add("Tar the hull", owners: [wen], due_on: (today - 3).iso8601)
    add("Order shackles", owners: [marit])
    add("Count the floats")
    clock.back
    sign_in_as("Marit Hauge")
  end

  it "are narrowed, in order, and changed several at once, with what is chosen in the address" do
    click_link "Actions", exact: true
    expect(page).to have_content "1 ACTION"
    choose_from "Whose", "everybody’s"
    expect(page).to have_content "3 ACTIONS"
    choose_from "In order", "by owner"
    expect(page).to have_content(/Marit Hauge.*Order.*Wen Halloran.*Tar.*Nobody yet.*Count/m)
    choose_from "Only", "overdue"
    expect(page).to have_content "1 ACTION"
    choose_from "Series", "Paint"
    expect(page).to have_content "Nothing is open that fits."
    visit page.current_url.sub(/seriesId=[^&]*/, "").sub("only=overdue", "")
    check "Choose: Order shackles"
    check "Choose: Count the floats"
    click_button "Choose none"
    check "Choose: Count the floats"
    click_button "Set the owner"
    choose_from "Owner", "Wen Halloran"
    keep
    expect(page).to have_content "One action is changed."
    check "Choose: Tar the hull"
    check "Choose: Count the floats"
    click_button "Set the date"
    dialog.fill_in "Due", with: "24.12.2027"
    keep
    expect(page).to have_content "due Fri 24 Dec", count: 2
    check "Choose: Tar the hull"
    within(".bulk") { click_button "Done" }
    expect(page).to have_content "One action is done."
    expect(page).to have_no_css ".action", text: "Tar the hull"
    within(".v-snackbar") { click_button "Undo" }
    expect(page).to have_css ".action", text: "Tar the hull"
    expect_accessible
  end

  it "become one each where several own them" do
    add("Read the plan", owners: [wen, marit])
    visit "/actions?whose=all"
    click_button "More: Read the plan"
    click_button "One each for 2 owners"
    expect(page).to have_content "“Read the plan” is one each now."
    expect(page).to have_css ".action", text: "Read the plan", count: 2
  end

  it "have words on how they go and a history, go to another series and back, and come from a file" do
    visit "/actions?whose=all"
    click_button "More: Tar the hull"
    fill_in "How it goes: Tar the hull", with: "One coat is on"
    click_button "Save"
    expect(page).to have_css ".note", text: "One coat is on"
    pick_file("plank by plank", ".txt", field: "input[aria-label='Add files']")
    expect(page).to have_link(text: /picked.*\.txt/)
    click_button(find("button[aria-label^='Remove: picked']")["aria-label"])
    expect(page).to have_no_link(text: /picked.*\.txt/)
    expect(page).to have_css ".detail li", text: "One coat is on · Marit Hauge"
    choose_from "Hand over to another series", "Paint"
    click_button "Hand over"
    expect(page).to have_content "“Tar the hull” is with “Paint” now."
    expect(page).to have_css ".action", text: "from Boats"
    click_button "More: Tar the hull"
    click_button "Give back to Boats"
    expect(page).to have_content "“Tar the hull” is back with “Boats”."
    click_button "Import actions…"
    choose_from "Into the series", "Boats"
    table = "action,owner,due\nSplice the rope,Wen,2027-01-08\nScrape,Somebody,\n"
    pick_file table, ".csv", field: ".v-dialog input[type=file]"
    expect(dialog).to have_content "Not in the series: Somebody"
    uncheck "Scrape"
    keep "Import 1 action"
    expect(page).to have_content "1 action imported."
    expect(page).to have_css ".action", text: "Splice the rope"
    expect(find_link("As CSV")[:href]).to end_with "/api/actions.csv?whose=all&state=open&group=due"
    expect(page).to have_link "As to-dos"
  end

  it "are reviewed on the sheet by keys alone: a word, another series, done" do
    meeting = meeting_ids(boats)[2]
    state(meeting, marit, "in_session")
    visit "/meetings/#{meeting}"
    on_card "Tar the hull", "c"
    type("Waits for dry days")
    type(:enter)
    expect(page).to have_css ".card", text: "carried over: Waits for dry days"
    click_button "A word on: Tar the hull"
    type(", and for paint")
    type(:enter)
    expect(page).to have_css ".card", text: "Waits for dry days, and for paint"
    expect(page).to have_content "all saved"
    on_card "Order shackles", "h"
    select "Paint", from: "The series it goes to"
    click_button "Hand it over"
    expect(page).to have_css ".card", text: "handed over"
    on_card "Count the floats", "e"
    dialog.fill_in "What is to be done", with: "Count the buoys"
    keep
    on_card "Count the buoys", "d"
    expect(page).to have_css ".card.over", text: "Count the buoys"
    expect(page).to have_content "all saved"
    expect(Records::ActionReview.pluck(:verdict, :word)).to contain_exactly(
      ["keep", "Waits for dry days, and for paint"], ["done", nil]
    )
  end

  it "are told of and ticked off by their owner without an account, with a press" do
    id = Records::ActionItem.find_by!(text: "Tar the hull").id
    visit Loading::ActionLink.path(id, wen)
    fill_in "How it goes", with: "Rain all week"
    click_button "It will not be done by then"
    expect(page).to have_css "li", text: "will not be done by then: Rain all week"
    fill_in "How it goes", with: "Dry now"
    click_button "Save"
    expect(page).to have_content "Saved. It stands on the sheet."
    expect_accessible
    click_button "It is done"
    expect(page).to have_content "It is done."
    click_button "Not done after all"
    expect(page).to have_button "It is done"
    visit "/meetings/#{meeting_ids(boats)[2]}"
    expect(page).to have_css ".card", text: "“Dry now” Wen Halloran"
    visit "/action/#{id}/#{marit}/0"
    expect(page).to have_content "This link leads nowhere any more"
  end
end
