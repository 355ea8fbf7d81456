require_relative "../web_helper"

# A series pauses, and ends in another one.
RSpec.describe "A series that ends" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:coming) { {start: 2.days.from_now.strftime("%Y-%m-%dT09:30"), rule: "FREQ=WEEKLY;COUNT=4"} }
  let!(:boats) { series(marit, {required: wen}, title: "Boats", **coming) }
  let!(:paint) { series(marit, {}, title: "Paint", **coming) }

  it "pauses first, then asks where its actions and topics go, and its people come along" do
    use(UseCases::Actions, marit).add(
      series_id: boats, actions: [{id: key, text: "Tar the hull", owner_ids: [wen], due_on: nil}]
    )
    topic(meeting_ids(boats).first, marit, "Insurance")
    sign_in_as("Marit Hauge")
    visit "/series/#{boats}"
    click_button "More to do with this series"
    find(".v-list-item", text: "Pause the series").click
    dialog.fill_in "From", with: 8.days.from_now.strftime("%-d.%-m.%Y")
    dialog.fill_in "Until", with: 17.days.from_now.strftime("%-d.%-m.%Y")
    dialog.fill_in "Why", with: "Winter"
    keep "Pause it"
    expect(page).to have_content "The meetings in between are called off."
    click_button "More to do with this series"
    find(".v-list-item", text: "End the series").click
    expect(dialog).to have_content "2 meetings to come are called off."
    keep "End it"
    expect(dialog).to have_content "Say why, so that people understand."
    dialog.fill_in "Why", with: "One round is enough"
    choose_from "1 open action", "go to another series"
    choose_from "Actions go to", "Paint"
    choose_from "1 topic to come", "go to another series"
    choose_from "Topics go to", "Paint"
    find("label", text: "Its people come along").click
    keep "End it"
    expect(page).to have_content "The series has ended."
    visit "/meetings/#{meeting_ids(paint).first}"
    expect(page).to have_css ".topic h2", text: "Insurance"
    expect(page).to have_css ".card", text: "Tar the hull"
    expect(page).to have_content "Wen Halloran"
  end
end
